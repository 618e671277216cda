"""Names of the faces of made pieces, as people read them."""

from __future__ import annotations

from ..phrases import say

FRONT, BACK, ENDS, TOP, FOOT = say("front"), say("back"), say("ends"), say("top"), say("foot")
DADO, REVEAL, SILL, SOFFIT, LINTEL = say("dado"), say("reveal"), say("sill"), say("soffit"), say("lintel")
FRAME, GLASS, DOOR, RING, KEYSTONE = say("frame"), say("glass"), say("door"), say("arch ring"), say("keystone")
TREAD, RISER, FACE, SLOPE, HIP, GABLE = say("tread"), say("riser"), say("face"), say("slope"), say("hip"), say("gable")
SHAFT, BASE, CAPITAL, EAVES, VERGE = say("shaft"), say("base"), say("capital"), say("eaves"), say("verge")
ROAD, CHANNEL, KERB, GROIN, VAULT, DOME = (
    say("road"), say("channel"), say("kerb"), say("groin"), say("vault"), say("dome"),
)  # fmt: skip
SIDE, COPING, SKIN, CLOTH = say("side"), say("coping"), say("skin"), say("cloth")
