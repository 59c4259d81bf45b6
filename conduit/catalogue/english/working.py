"""The exact way as arithmetic: the sums of a shoe, a mark, a step."""

WORKING: dict[str, str | tuple[str, str]] = {
    "work.radius": "Radius of the pipe's centreline: (gain {gain} − diameter {diameter}) ÷ {divisor} = {radius}.",
    "work.arc_offset": "Arrow to where a bend begins: deduct {deduct} − radius {radius} − half the diameter {half} = "
    "{offset}.",
    "work.ahead": "Straight pipe that it needs ahead of a bend: {front} ({hook}) + {offset} = {ahead}.",
    "work.behind": "Behind a bend: {behind} ({heel}), and {oval} to keep off a wall that is oval. Between two bends "
    "the lesser of both.",
    "work.hook_measured": "its front edge to the arrow",
    "work.hook_usual": "3/8 of the radius, its front not measured",
    "work.heel_measured": "as measured",
    "work.heel_usual": "half a diameter of the pipe, its heel not measured",
    "work.arc": "The bend takes {pipe} of pipe: radius {radius} × {angle} × π ÷ 180. It begins at {start} and ends at "
    "{end}.",
    "work.arrow_a": "Arrow, hook toward A: {start} − {offset} = {arrow}.",
    "work.arrow_b": "Arrow, hook toward B: {end} + {offset} = {arrow}.",
    "work.reference": "The {reference} is {distance} further toward the heel: {sum} = {at}.",
    "work.tape": "On your tape {at}.",
    "reference.arrow": "arrow",
    "reference.star": "star",
    "reference.notch": "notch",
    "reference.front": "front",
    "work.spacing": "Between the marks of its first two bends: straight {straight} + half of both arcs {arcs} = "
    "{spacing}.",
    "work.shrink": "Shrink: pipe used {used} − room along the leg {along} = {shrink}.",
    "work.around": "Around the {pipe}: its radius {radius} + half of both diameters, ({theirs} + {own}) ÷ 2, + the gap "
    "{gap} = {sum}.",
    "work.shots": "{shots} shots of {each}° on a radius of {radius}.",
    "work.rolled": "True rise: √({rise}² + {roll}²) = {true}; rolled by the angle whose tangent is roll {roll} ÷ rise "
    "{rise}: {angle} from {toward} toward {aside}.",
    "work.set_rolled": "To set it: an angle finder against both legs reads 0 while the offset lies the way of its "
    "rise; turn the pipe until it reads {angle}.",
    "work.kick_or_offset": "A kick serves where the 90 stands at the edge of the new level. To lie flat on it for a "
    "stretch take an offset: one bend more.",
    "work.kick": "Kick: the angle whose tangent is rise {rise} ÷ setback {setback}: {angle}.",
    "work.slope": "It turns by {angle}, back by {back}, and goes on {off} off the old leg.",
    "work.corner": "Corner to corner: {rise} ÷ sin {angle} = {travel}.",
    "work.corner_saddle": "Corner to corner: {rise} ÷ sin {angle} = {travel}. The corner stands higher than the pipe's "
    "middle there, as the bend cuts it.",
    "work.taken": "The bends take {one} and {other} of that (radius × tan of half the angle); straight between them: "
    "{straight}.",
    "work.gain": "Around the corner the tape would measure 2 × {reach}; the bend of {angle} uses {pipe} of pipe. It "
    "saves {gain}.",
}
