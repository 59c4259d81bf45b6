"""The order of bending: habits of the trade, why a bend cannot come where it stands, why there is no order."""

ORDER: dict[str, str | tuple[str, str]] = {
    "habit.saddle_centre": "Saddle: the centre first, the outer two after.",
    "habit.stub": "The stub before its kick.",
    "habit.box_offset_last": "The box offset at the far end last, after trimming to length.",
    "habit.box_offset_first": "Box offset first, at the measured end.",
    "habit.along_offset": "Along the pipe within one offset.",
    "habit.along_side": "Along the pipe within one side of the saddle.",
    "habit.one_side": "Finish one side of the saddle first.",
    "habit.finish": "What is begun is finished first.",
    "habit.not_here": "{habit} Not here: {why}.",
    "habit.another": "another bend could then not be made, or not by its habit",
    "order.way.air": "In the air: on the floor the bent part would be in the way.",
    "order.way.edge": "Over an edge, the bent part hanging free of it: on the floor it would be in the way.",
    "order.bends": "{first} to {last}",
    "order.and": " and ",
    "order.no_pipe": "there is not enough straight pipe at its end for the shoe",
    "order.no_room": "the shoe needs the straight pipe where bend {bends} is already bent",
    "order.handle": "a bent part would be where the handle swings",
    "order.floor_and_air": "on the floor a bent part would be in the way, and in the air the pipe would reach the "
    "ground",
    "order.machine": "a bent part would reach the floor, or the machine under the pipe",
    "order.not_even_first": "Bend {bend} cannot be made even first: {why}.",
    "order.none": "Whatever comes first, a later bend finds no straight pipe for the shoe, or no room over floor and "
    "handle.",
    "order.not_here": "Bend {bend} cannot come here: {why}.",
    "order.not_found": "No order of its {bends} bends was found, as far as it was searched.",
}
