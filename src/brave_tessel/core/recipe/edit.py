"""Changes to a recipe, each from one whole recipe to the next; what does not fit is refused with the reason."""

from __future__ import annotations

from collections.abc import Iterable

import msgspec

from ..errors import DoesNotFitError, MissingError, NotUnderstoodError
from ..job.layers import Recipe, Step
from ..maps import TRAITS, MapKind
from ..operation import REGISTRY, Operation, Value, find
from ..phrases import say
from .evaluate import passed_on

FAMILIES = (
    "noise",
    "marks",
    "pattern",
    "piece",
    "adjust",
    "blur",
    "move",
    "form",
    "combine",
    "colour",
    "relief",
    "source",
)
"""Families of operations that are steps, in the order of their headings."""
_WORDS = {"field": "a field", "colour": "a colour", "vector": "normals", "pieces": "pieces"}


def step_operations() -> list[Operation]:
    """Every operation that can be a step."""
    return [operation for name in FAMILIES for operation in REGISTRY.values() if operation.family == name]


def inputs_of(op: str) -> dict[str, str]:
    """What an operation is made from, of the steps above it; what lies beneath the layer comes by itself."""
    return {slot: kind for slot, kind in find(op).inputs.items() if kind not in {"ground", "outline"}}


def step_named(recipe: Recipe, name: str) -> Step:
    """The step of that name."""
    for step in recipe.steps:
        if step.name == name:
            return step
    raise MissingError("step", value=name, allowed=", ".join(step.name for step in recipe.steps))


def index_of(recipe: Recipe, name: str) -> int:
    """Where a step stands in its recipe; :class:`MissingError` where there is none of the name."""
    return [step.name for step in recipe.steps].index(name)


def kind_of(step: Step) -> str:
    """What a step yields; empty where this version does not know it."""
    return REGISTRY[step.op].yields if step.op in REGISTRY else ""


def candidates(recipe: Recipe, name: str, slot: str) -> list[str]:
    """Earlier steps that an input takes."""
    step = step_named(recipe, name)
    wanted = inputs_of(step.op).get(slot, "")
    return [earlier.name for earlier in recipe.steps[: index_of(recipe, name)] if kind_of(earlier) == wanted]


def users(recipe: Recipe, name: str) -> list[str]:
    """Later steps that are made from a step."""
    return [step.name for step in recipe.steps if name in step.made_from.values()]


def used(recipe: Recipe) -> set[str]:
    """Steps that any map hangs on; the others cost nothing."""
    wanted = set(recipe.yields.values())
    for step in reversed(recipe.steps):
        if step.name in wanted:
            wanted |= set(step.made_from.values())
    return wanted


def free_name(recipe: Recipe, wanted: str) -> str:
    """A name no step has yet."""
    taken = {step.name for step in recipe.steps}
    return next(name for k in range(1, len(taken) + 2) if (name := wanted if k == 1 else f"{wanted} {k}") not in taken)


def _put(recipe: Recipe, name: str, step: Step) -> Recipe:
    return msgspec.structs.replace(recipe, steps=tuple(step if old.name == name else old for old in recipe.steps))


def change(recipe: Recipe, name: str, **fields: object) -> Recipe:
    """Another note, section, set of opened dials or bypass of a step."""
    return _put(recipe, name, msgspec.structs.replace(step_named(recipe, name), **fields))


def note_section(recipe: Recipe, section: str, note: str) -> Recipe:
    """A note on a section; an empty one takes it away."""
    kept = {name: text for name, text in recipe.notes.items() if name != section}
    return msgspec.structs.replace(recipe, notes={**kept, section: note} if note.strip() else kept)


def may_be_half(step: Step) -> bool:
    """Whether a step can be worked out at half resolution: it yields a picture and is made from pictures only."""
    soft = {"field", "colour"}
    return (
        kind_of(step) in soft
        and set(inputs_of(step.op).values()) <= soft
        and "ground" not in find(step.op).inputs.values()
    )


def set_dial(recipe: Recipe, name: str, dial: str, value: Value) -> Recipe:
    """A step's parameter, checked."""
    step = step_named(recipe, name)
    checked = find(step.op).params[dial].check(value)
    return change(recipe, name, values={**step.values, dial: checked})


def add_step(recipe: Recipe, op: str, *, after: str = "") -> tuple[Recipe, str]:
    """A new step below another, or at the end, made from what fits nearest above it. Returns its name too.

    Raises
    ------
    DoesNotFitError
        when nothing above it fits one of its inputs.
    """
    operation = find(op)
    at = index_of(recipe, after) + 1 if after else len(recipe.steps)
    above = recipe.steps[:at]
    made_from: dict[str, str] = {}
    for slot, kind in inputs_of(operation.id).items():
        fitting = [step.name for step in reversed(above) if kind_of(step) == kind]
        first = after if after in fitting and after not in made_from.values() else ""
        fresh = [name for name in fitting if name not in made_from.values()]
        if not fitting:
            raise DoesNotFitError(
                operation.label,
                value="what lies above it",
                allowed=say("it is made from {get}, and there is none yet", get=_WORDS.get(kind, kind)),
            )
        made_from[slot] = first or (fresh or fitting)[0]
    name = free_name(recipe, operation.label.lower())
    section = above[-1].section if above else ""
    step = Step(name=name, op=op, made_from=made_from, section=section)
    return msgspec.structs.replace(recipe, steps=(*above, step, *recipe.steps[at:])), name


def remove_step(recipe: Recipe, name: str) -> Recipe:
    """Take a step out; what was made from it is made from what it passes on, where that fits.

    Raises
    ------
    DoesNotFitError
        when others are made from it and nothing can stand in.
    """
    step, using = step_named(recipe, name), users(recipe, name)
    stand_in = passed_on(step)
    if using and not stand_in:
        raise DoesNotFitError(
            say("Taking out {name}", name=name),
            value="a gap",
            allowed=say(
                "{names} {value} made from it", names=", ".join(using), value="is" if len(using) == 1 else "are"
            ),
        )
    steps = tuple(
        msgspec.structs.replace(
            old, made_from={slot: stand_in if of == name else of for slot, of in old.made_from.items()}
        )
        for old in recipe.steps
        if old.name != name
    )
    yields = {kind: stand_in if of == name else of for kind, of in recipe.yields.items() if of != name or stand_in}
    return msgspec.structs.replace(recipe, steps=steps, yields=yields)


def rename_step(recipe: Recipe, name: str, wanted: str) -> Recipe:
    """Another name; everything made from it follows.

    Raises
    ------
    NotUnderstoodError
        when the name is empty or taken.
    """
    wanted = wanted.strip()
    if wanted == name:
        return recipe
    if not wanted or any(step.name == wanted for step in recipe.steps):
        raise NotUnderstoodError("name for a step", value=wanted, allowed="a name that no other step has")
    steps = tuple(
        msgspec.structs.replace(
            step,
            name=wanted if step.name == name else step.name,
            made_from={slot: wanted if of == name else of for slot, of in step.made_from.items()},
        )
        for step in recipe.steps
    )
    yields = {kind: wanted if of == name else of for kind, of in recipe.yields.items()}
    return msgspec.structs.replace(recipe, steps=steps, yields=yields)


def duplicate_step(recipe: Recipe, name: str) -> tuple[Recipe, str]:
    """The same step once more, below it."""
    step = step_named(recipe, name)
    twin = msgspec.structs.replace(step, name=free_name(recipe, step.name))
    at = index_of(recipe, name) + 1
    return msgspec.structs.replace(recipe, steps=(*recipe.steps[:at], twin, *recipe.steps[at:])), twin.name


def move_step(recipe: Recipe, name: str, to: int) -> Recipe:
    """Put a step at another place, never above what it is made from or below what is made from it.

    Raises
    ------
    DoesNotFitError
        with the step that is in the way.
    """
    step = step_named(recipe, name)
    rest = [old for old in recipe.steps if old.name != name]
    to = min(max(to, 0), len(rest))
    above = {old.name for old in rest[:to]}
    missing = next((of for of in step.made_from.values() if of and of not in above), "")
    if missing:
        raise DoesNotFitError(
            name, value="that place", allowed=say("it is made from {missing}, which comes later", missing=missing)
        )
    early = next((user for user in users(recipe, name) if user in above), "")
    if early:
        raise DoesNotFitError(
            name, value="that place", allowed=say("{early} is made from it and comes before", early=early)
        )
    section = rest[to - 1].section if to > 0 else (rest[0].section if rest else step.section)
    moved = msgspec.structs.replace(step, section=section)
    return msgspec.structs.replace(recipe, steps=(*rest[:to], moved, *rest[to:]))


def set_input(recipe: Recipe, name: str, slot: str, of: str) -> Recipe:
    """Make a step from another one.

    Raises
    ------
    DoesNotFitError
        when that comes later or is of another kind.
    """
    step, other = step_named(recipe, name), step_named(recipe, of)
    wanted, got = inputs_of(step.op)[slot], kind_of(other)
    if index_of(recipe, of) >= index_of(recipe, name):
        raise DoesNotFitError(name, value=of, allowed="a step is only made from steps above it")
    if wanted != got:
        offer = ", a ramp in between would do" if (got, wanted) == ("field", "colour") else ""
        raise DoesNotFitError(
            f"{name}, {slot}",
            value=of,
            allowed=say(
                "it takes {get}, and that is {get_2}{offer}",
                get=_WORDS.get(wanted, wanted),
                get_2=_WORDS.get(got, got),
                offer=offer,
            ),
        )
    return change(recipe, name, made_from={**step.made_from, slot: of})


def ramp_between(recipe: Recipe, name: str, slot: str, of: str) -> tuple[Recipe, str]:
    """Put a ramp between a field and a step that takes a colour."""
    step_named(recipe, of)
    with_ramp, ramp = add_step(recipe, "colour.stops", after=of)
    with_ramp = change(with_ramp, ramp, made_from={"field": of})
    return set_input(with_ramp, name, slot, ramp), ramp


def replace_operation(recipe: Recipe, name: str, op: str) -> Recipe:
    """Another operation in a step's place; inputs and dials of the same name or kind are kept.

    Raises
    ------
    DoesNotFitError
        when later steps could not take what it yields, or nothing above fits its inputs.
    """
    step, operation = step_named(recipe, name), find(op)
    if operation.yields != kind_of(step) and (users(recipe, name) or name in recipe.yields.values()):
        raise DoesNotFitError(
            operation.label,
            value="this place",
            allowed=say("what follows takes {get}", get=_WORDS.get(kind_of(step), kind_of(step))),
        )
    above = recipe.steps[: index_of(recipe, name)]
    held = [of for of in step.made_from.values() if of]
    made_from = {}
    for slot, kind in inputs_of(operation.id).items():
        fitting = [step.made_from[slot]] if slot in step.made_from else []
        fitting += [*held, *(old.name for old in reversed(above))]
        found = next(
            (of for of in fitting if of in {old.name for old in above} and kind_of(step_named(recipe, of)) == kind), ""
        )
        if not found:
            raise DoesNotFitError(
                operation.label,
                value="what lies above it",
                allowed=say("it is made from {get}, and there is none", get=_WORDS.get(kind, kind)),
            )
        made_from[slot] = found
    values = {dial: value for dial, value in step.values.items() if _takes(operation, dial, value)}
    return change(
        recipe,
        name,
        op=op,
        values=values,
        made_from=made_from,
        opened=tuple(d for d in step.opened if d in operation.params),
    )


def _takes(operation: Operation, dial: str, value: Value) -> bool:
    if dial not in operation.params:
        return False
    try:
        operation.params[dial].check(value)
    except Exception:  # noqa: BLE001 - a value of the former operation that means nothing here is dropped
        return False
    return True


def set_yield(recipe: Recipe, kind: MapKind, name: str) -> Recipe:
    """Which step feeds a map; an empty name takes the map away.

    Raises
    ------
    DoesNotFitError
        when the step is of another kind.
    """
    if not name:
        return msgspec.structs.replace(recipe, yields={k: of for k, of in recipe.yields.items() if k != kind})
    wanted, got = map_kind(kind), kind_of(step_named(recipe, name))
    if wanted != got:
        raise DoesNotFitError(
            TRAITS[kind].label,
            value=name,
            allowed=say("it takes {words}, and that is {get}", words=_WORDS[wanted], get=_WORDS.get(got, got)),
        )
    return msgspec.structs.replace(recipe, yields={**recipe.yields, kind: name})


def map_kind(kind: MapKind) -> str:
    """What kind of result a map takes."""
    return "vector" if kind in {MapKind.NORMAL, MapKind.COAT_NORMAL} else "colour" if TRAITS[kind].colour else "field"


def with_needs(recipe: Recipe, names: Iterable[str]) -> list[Step]:
    """Steps and everything they are made from, in order; to be copied elsewhere."""
    wanted = set(names)
    for step in reversed(recipe.steps):
        if step.name in wanted:
            wanted |= set(step.made_from.values())
    return [step for step in recipe.steps if step.name in wanted]


def paste_steps(recipe: Recipe, steps: Iterable[Step]) -> tuple[Recipe, list[str]]:
    """Steps of another recipe added at the end under free names."""
    names: dict[str, str] = {}
    for step in steps:
        name = free_name(recipe, step.name)
        names[step.name] = name
        fresh = msgspec.structs.replace(
            step, name=name, made_from={slot: names.get(of, of) for slot, of in step.made_from.items()}
        )
        recipe = msgspec.structs.replace(recipe, steps=(*recipe.steps, fresh))
    return recipe, list(names.values())


def search(text: str, recipe: Recipe, selected: str = "") -> list[Operation]:
    """Operations that answer a search, best first: by their name, by their help, and by what fits the selected step."""
    words = text.lower().split()
    at = index_of(recipe, selected) + 1 if selected else len(recipe.steps)
    kinds = {kind_of(step) for step in recipe.steps[:at]}
    selected_kind = kind_of(step_named(recipe, selected)) if selected else ""
    ranked = []
    for order, operation in enumerate(step_operations()):
        label, rest = operation.label.lower(), f"{operation.id} {operation.help}".lower()
        if not all(word in label or word in rest for word in words):
            continue
        score = sum(4 if label.startswith(word) else 2 if word in label else 1 for word in words)
        score += 3 if selected_kind and next(iter(inputs_of(operation.id).values()), "") == selected_kind else 0
        score -= 10 if not set(inputs_of(operation.id).values()) <= kinds else 0
        ranked.append((-score, order, operation))
    return [operation for _, _, operation in sorted(ranked, key=lambda entry: entry[:2])]


ANYTHING = "anything"
"""What a step of another version may yield."""


def check_recipe(recipe: Recipe) -> None:
    """Refuse a recipe from a file whose steps do not follow from each other.

    Raises
    ------
    DoesNotFitError, UnknownOperationError, OutOfRangeError, MissingError
        with the step that is wrong.
    """
    seen: dict[str, str] = {}
    for step in recipe.steps:
        operation = find(step.op, step.version)
        if not operation.known:
            # A step of another version may stand anywhere; it is passed over and kept.
            seen[step.name] = ANYTHING
            continue
        operation.bind(step.values)
        for slot, kind in inputs_of(operation.id).items():
            of = step.made_from.get(slot, "")
            if of not in seen:
                raise MissingError(
                    say("step for {name}, {slot}", name=step.name, slot=slot), value=of, allowed=", ".join(seen)
                )
            if seen[of] not in {kind, ANYTHING}:
                raise DoesNotFitError(
                    f"{step.name}, {slot}", value=of, allowed=say("it takes {get}", get=_WORDS.get(kind, kind))
                )
        seen[step.name] = operation.yields
    for kind_, name in recipe.yields.items():
        if seen.get(name) not in {map_kind(MapKind(kind_)), ANYTHING}:
            raise DoesNotFitError(
                TRAITS[MapKind(kind_)].label,
                value=name,
                allowed=say("it takes {words}", words=_WORDS[map_kind(MapKind(kind_))]),
            )
