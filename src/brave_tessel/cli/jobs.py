"""Commands on jobs: open, demo, export, scene, check, list."""

from __future__ import annotations

import argparse
import sys
from typing import Any

import msgspec

from ..core.buildup.kind import tag_of
from ..core.handover.check import run_checks
from ..core.job.document import Delivery, Job
from ..core.place.check import check_scene
from ..core.place.elevation import Courses, courses_on, unroll
from ..core.place.site import Site
from ..engine.handover.output import Writing
from ..engine.handover.outputs.maps_png import export_surface
from ..engine.handover.outputs.scene_glb import scene_glb
from ..engine.library.shipped_demo import shipped_demo
from ..engine.session import Session
from ..formats.disk import write_atomically
from ..formats.job_file import OpenedJob, load_job, save_job
from .said import Progress, say

CHECK_PX = 1024


def demo(options: argparse.Namespace, progress: Progress) -> None:
    """Write the demo job, or open it in the window."""
    if options.open:
        from ..ui.app import run

        sys.exit(run(opened=shipped_demo(), stage="Build"))
    opened = shipped_demo()
    save_job(options.out, opened.job, opened.blobs, opened.previews)
    progress.end()
    print(f"Wrote {options.out}")


def export(options: argparse.Namespace, progress: Progress) -> None:
    """Write the maps of one surface."""
    snapshot = Session(load_job(options.job)).snapshot()
    surface = snapshot.job.surface_named(options.surface)
    delivery = msgspec.structs.replace((*snapshot.job.deliveries, Delivery(id="command-line"))[0], px=options.px)
    written = export_surface(Writing(snapshot, delivery, (surface,), options.out, progress), surface)
    progress.end()
    result = {"surface": surface.name, "maps": {kind.value: path.name for kind, path in written.items()}}
    say(result, "\n".join(str(path) for path in written.values()), as_json=options.json)


def scene(options: argparse.Namespace, progress: Progress) -> None:
    """Write the scene as glTF 2.0 binary."""
    snapshot = Session(load_job(options.job)).snapshot()
    write_atomically(options.out, scene_glb(snapshot, px=options.px, progress=progress))
    progress.end()
    print(f"Wrote {options.out}")


def check(options: argparse.Namespace, progress: Progress) -> int:
    """Run every check on every surface and on the scene, and say what was found; 1 where something is."""
    snapshot = Session(load_job(options.job)).snapshot()
    findings = []
    for surface in snapshot.job.surfaces:
        progress(f"Check {surface.name}", 0.5)
        for finding in run_checks(snapshot.job, surface, snapshot.finished(surface, CHECK_PX)):
            findings.append(
                {
                    "surface": surface.name,
                    "check": finding.check,
                    "severity": finding.severity,
                    "title": finding.title,
                    "cause": finding.cause,
                    "spot_mm": finding.spot,
                    "mend": finding.mend_label or None,
                    "measures": finding.measures,
                }
            )
    progress("Check the scene", 0.9)
    scene = _scene_findings(snapshot.site())
    progress.end()
    lines = [f"{f['severity']:8}{f['surface']}: {f['title']}. {f['cause']}" for f in findings]
    lines += [f"{f['severity']:8}{f['part']}: {f['title']}. {f['cause']}" for f in scene]
    say({"findings": findings, "scene": scene}, "\n".join(lines), as_json=options.json)
    counted = {"fault", "caution"} if options.strict else {"fault"}
    return int(any(finding["severity"] in counted for finding in (*findings, *scene)))


def _scene_findings(site: Site) -> list[dict[str, Any]]:
    """What is wrong with how surfaces lie in the scene."""
    names = {part.id: part.name for part in site.scene.parts}
    return [
        {
            "part": names[one.part],
            "check": one.check,
            "severity": one.severity,
            "title": one.title,
            "cause": one.cause,
            "place_mm": [round(v, 1) for v in one.place] if one.place else None,
            "mend": one.mend_label or None,
        }
        for one in check_scene(site)
    ]


def list_job(options: argparse.Namespace, _progress: Progress) -> None:
    """Say which surfaces, layers and parts a job has."""
    snapshot = Session(load_job(options.job)).snapshot()
    job, site = snapshot.job, snapshot.site()
    result: dict[str, Any] = {
        "job": job.name,
        "sources": [
            {
                "name": s.name,
                "size_mm": list(s.sheet_mm) if s.scatter else [s.straightening.width_mm, s.straightening.height_mm],
            }
            for s in job.sources
        ],
        "surfaces": [
            {
                "name": surface.name,
                "id": surface.id,
                "repeat_mm": [surface.width_mm, surface.height_mm],
                "layers": [
                    {
                        "name": layer.name,
                        "shown": layer.shown,
                        "what": tag_of(type(layer.what)),
                        "rules": len(layer.where),
                    }
                    for layer in surface.layers
                ],
            }
            for surface in job.surfaces
        ],
        "parts": [
            {
                "name": part.name,
                "id": part.id,
                "parent": part.parent or None,
                "made": part.piece.op if part.piece else part.model.file_name if part.model else None,
                "hidden": part.hidden,
                "laid": [
                    {
                        "surface": laid.surface or None,
                        "laying": laid.laying.op,
                        "faces": list(laid.groups) or ("picked" if laid.picked else "all"),
                        "whole_courses": c.whole if (c := _courses(site, part.id, row)) else None,
                        "cut_mm": list(c.cut_mm) if c else None,
                    }
                    for row, laid in enumerate(part.laid)
                ],
            }
            for part in job.scene.parts
        ],
        "levels": [{"name": level.name, "height_mm": level.height} for level in job.scene.levels],
    }
    lines = [job.name]
    for surface in result["surfaces"]:
        width, height = surface["repeat_mm"]
        lines.append(
            f"  {surface['name']}  {width:g} × {height:g} mm  {', '.join(x['name'] for x in surface['layers'])}"
        )
    for part in result["parts"]:
        on_it = ", ".join(str(laid["surface"]) for laid in part["laid"]) or ("bare" if part["made"] else "group")
        lines.append(f"  {part['name']}: {on_it}")
    say(result, "\n".join(lines), as_json=options.json)


def _courses(site: Site, part: str, row: int) -> Courses | None:
    """Courses on the largest face of an elevation on which something is laid."""
    drawing = unroll(site, part) if site.of_part(part) else None
    found = [
        ((face.bounds[2] - face.bounds[0]) * (face.bounds[3] - face.bounds[1]), counted)
        for face in (drawing.faces if drawing else ())
        if drawing
        and face.facet.standing.part.id == part
        and face.row == row
        and (counted := courses_on(drawing, face))
    ]
    return max(found, key=lambda entry: entry[0])[1] if found else None


def window(options: argparse.Namespace, _progress: Progress) -> None:
    """Open the window, with a job or a picture."""
    from ..ui.app import run

    if options.path is not None and options.path.suffix != ".tessel":
        session = Session()
        source = session.intake().read_source(options.path)
        opened = OpenedJob(Job(sources=(source,)), dict(session.kept.view))
        sys.exit(run(opened=opened, stage="Gather"))
    sys.exit(run(options.path))
