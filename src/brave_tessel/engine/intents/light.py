"""What people want to do with the light, as commands."""

from __future__ import annotations

import math

import msgspec

from ...core.job.commands import AnyCommand, Insert, Remove, Set
from ...core.job.document import Job
from ...core.job.light import FLOOR, KeptLight, Lamp, Rig
from ...core.job.nodes import Setting, new_id, replace_values
from ...core.light.dome import Pictures as Pictures
from ...core.light.dome import eye_of, meter, no_pictures, sun_of
from ...core.light.presets import make_preset, metered
from ...core.light.standing import BY_HAND, BY_HOUR
from ...core.operation import Value, find
from ...core.phrases import say

RIG = ("rig",)
_LOWEST, _HIGHEST = 1.0, 89.0


def take_rig(rig: Rig, label: str, *, gesture: str = "") -> AnyCommand:
    """Put another light in place of the job's."""
    return Set(path=RIG, value=rig, label=label, gesture=gesture)


def take_preset(name: str) -> AnyCommand:
    """Light as one of the presets."""
    return take_rig(make_preset(name), say("Light: {name}", name=name))


def turn_sun(rig: Rig, right: float, down: float, stance: str) -> AnyCommand:
    """Drag the light, pixels: sideways turns it, up and down raises and lowers it.

    Where lamps alone light, the lamp that throws shadows is turned; an own picture of the sky is turned whole.
    """
    # On a wall one looks at from the south the sun in the south-west stands left; on a floor seen westward, above.
    by = 0.5 * right * (1 if stance == FLOOR else -1)
    lamp = _main_lamp(rig)
    if lamp is not None:
        turned = replace_values(
            lamp,
            bearing=(lamp.number("bearing") + by) % 360,
            height=min(_HIGHEST, max(-60.0, lamp.number("height") - 0.35 * down)),
        )
        lamps = tuple(turned if one.id == lamp.id else one for one in rig.lamps)
        return take_rig(_by_hand(rig, lamps=lamps), "Turn the light", gesture="turn the light")
    if rig.sky.op == "sky.picture":
        turn = (rig.sky.number("turn") + by + 180) % 360 - 180
        sky = replace_values(rig.sky, turn=turn)
        return take_rig(_by_hand(rig, sky=sky), "Turn the light", gesture="turn the light")
    bearing, height = sun_of(rig).stand
    sun = replace_values(
        rig.sun, by=BY_HAND, bearing=(bearing + by) % 360, height=min(_HIGHEST, max(_LOWEST, height - 0.35 * down))
    )
    return take_rig(_by_hand(rig, sun=sun), "Turn the light", gesture="turn the light")


def _main_lamp(rig: Rig) -> Lamp | None:
    """The lamp that takes the sun's place, if the sky has no sun."""
    if rig.sky.op != "sky.room":
        return None
    lit = [lamp for lamp in rig.lamps if not lamp.off and lamp.known]
    return next((lamp for lamp in lit if lamp.op == "lamp.bulb"), lit[0] if lit else None)


def _by_hand(rig: Rig, **changes: object) -> Rig:
    return msgspec.structs.replace(rig, name="", **changes)


def set_hour(rig: Rig, hour: float, pictures: Pictures = no_pictures) -> AnyCommand:
    """The sun at an hour of the rig's day and place, exposed for it."""
    sun = replace_values(rig.sun, by=BY_HOUR, hour=hour)
    return take_rig(_metered(_by_hand(rig, sun=sun), pictures), "Set the hour", gesture="set the hour")


def set_value(rig: Rig, part: str, name: str, value: Value, pictures: Pictures = no_pictures) -> AnyCommand:
    """One dial of ``sun``, ``sky``, ``eye`` or of the lamp with that id. What changes how bright all is keeps the
    exposure that was chosen over the metered one.
    """
    stops = stops_of(rig, pictures)
    lamp = next((one for one in rig.lamps if one.id == part), None)
    if lamp is not None:
        put = replace_values(lamp, **{name: value})
        changed = _by_hand(rig, lamps=tuple(put if one.id == part else one for one in rig.lamps))
    else:
        changed = _by_hand(rig, **{part: replace_values(getattr(rig, part), **{name: value})})
    if part != "eye":
        changed = exposed(_metered(changed, pictures), stops)
    return take_rig(changed, say("Change {name}", name=name.replace("_", " ")), gesture=f"light {part} {name}")


def take_sky(rig: Rig, op: str, pictures: Pictures = no_pictures) -> AnyCommand:
    """Another kind of sky, exposed for it."""
    changed = _by_hand(rig, sky=Setting(op=op))
    return take_rig(_metered(changed, pictures), say("Sky: {name}", name=find(op).label))


def take_picture(rig: Rig, blob: str, name: str, pictures: Pictures) -> AnyCommand:
    """An own picture as the sky, exposed for it."""
    changed = _by_hand(rig, sky=Setting(op="sky.picture"), picture=blob, picture_name=name)
    return take_rig(_metered(changed, pictures), say("Sky: {name}", name=name))


def add_lamp(rig: Rig, op: str, pictures: Pictures = no_pictures) -> AnyCommand:
    """One more lamp."""
    lamp = Lamp(op=op, id=new_id("lamp"))
    changed = _by_hand(rig, lamps=(*rig.lamps, lamp))
    return take_rig(_metered(changed, pictures), say("Add {name}", name=find(op).label))


def remove_lamp(rig: Rig, id: str, pictures: Pictures = no_pictures) -> AnyCommand:
    """A lamp taken away."""
    changed = _by_hand(rig, lamps=tuple(lamp for lamp in rig.lamps if lamp.id != id))
    return take_rig(_metered(changed, pictures), "Take the lamp away")


def switch_lamp(rig: Rig, id: str, pictures: Pictures = no_pictures) -> AnyCommand:
    """A lamp switched on or off."""
    lamps = tuple(msgspec.structs.replace(one, off=not one.off) if one.id == id else one for one in rig.lamps)
    return take_rig(_metered(_by_hand(rig, lamps=lamps), pictures), "Switch the lamp")


# Exposure ------------------------------------------------------------------------------------------


def stops_of(rig: Rig, pictures: Pictures = no_pictures) -> float:
    """How many stops brighter than metered the rig is exposed."""
    return meter(rig, pictures) - eye_of(rig).ev100


def exposed(rig: Rig, stops: float) -> Rig:
    """The rig so many stops brighter than it is."""
    return msgspec.structs.replace(rig, eye=replace_values(rig.eye, ev100=round(eye_of(rig).ev100 - stops, 3)))


def _metered(rig: Rig, pictures: Pictures) -> Rig:
    ev = round(meter(rig, pictures), 2)
    return msgspec.structs.replace(rig, eye=replace_values(rig.eye, ev100=ev))


def expose(rig: Rig, stops: float, pictures: Pictures = no_pictures) -> AnyCommand:
    """So many stops brighter than metered."""
    return take_rig(exposed(_metered(rig, pictures), stops), "Expose", gesture="expose")


def expose_for(rig: Rig, shown: float) -> AnyCommand:
    """Expose so that what shows as this linear light now shows as 18 % grey."""
    return take_rig(exposed(rig, math.log2(0.18 / max(shown, 1e-4))), "Expose for a point")


# Kept lights ---------------------------------------------------------------------------------------


def keep_light(job: Job, name: str) -> AnyCommand:
    """Keep the light under a name."""
    kept = KeptLight(id=new_id("light"), name=name, rig=msgspec.structs.replace(job.rig, name=name))
    return Insert(path=("lights",), item=kept, label=say("Keep the light {name}", name=name))


def drop_light(id: str) -> AnyCommand:
    """Let a kept light go."""
    return Remove(path=("lights", id), label="Let the light go")


def set_stance(surface: str, stance: str) -> AnyCommand:
    """Whether a surface is a wall, a floor or a ceiling."""
    return Set(path=("surfaces", surface, "stance"), value=stance, label="Wall, floor or ceiling")


__all__ = [
    "add_lamp", "drop_light", "expose", "expose_for", "exposed", "keep_light", "metered", "remove_lamp", "set_hour",
    "set_stance", "set_value", "stops_of", "switch_lamp", "take_picture", "take_preset", "take_rig", "take_sky",
    "turn_sun",
]  # fmt: skip
