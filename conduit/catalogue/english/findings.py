"""Findings by code, and by case where one code has several: what is said, and what to do about it (may be nothing)."""

FINDINGS: dict[str, tuple[str, str]] = {
    # What was typed.
    "unreadable": ("{what}: {fault}.", ""),
    "unreadable.window": (
        "{called}: at least {low} and at most {high} leaves nothing in between.",
        "Write the window again.",
    ),
    "unreadable.too_many_pipes": ("The rack: has at most {most} pipes, the lead among them.", "Make two racks of it."),
    "not_measured": ("Still to measure: {called}, {what}.", ""),
    "not_measured.end": ("Still to measure: where the pipe ends.", ""),
    "far_out": ("{called}: does {written} mean {own}, or {other}?", "Write the unit."),
    "taken_twice": ("{called}: its readings are {apart} apart; their mean is used.", "Measure it once more."),
    # The shoe.
    "no_such_shoe": ("The shoe: {why}.", ""),
    "no_typical_shoe": (
        "The shoe: no typical figures are known for {pipe}.",
        "Enter the deduct and gain of your machine's shoe.",
    ),
    "short_radius": (
        "This shoe bends to a radius of {radius}, under the usual least of {least} for this size.",
        "Check the shoe's figures with a test bend in scrap, and your local code.",
    ),
    "short_radius.sweep": (
        "{step}: a radius of {radius} is under the usual least of {usual} for {size} in many shots.",
        "Sweep it with {least} or more, or check your local code.",
    ),
    # Each step's geometry.
    "along_heading": (
        "{step}: the pipe already runs along “{way}” there, so it cannot turn that way.",
        "Choose one of the four directions across the pipe.",
    ),
    "along_heading.rack": (
        "The rack: the pipes run along “{way}” at the start, so it is no side of them.",
        "Choose a side across the pipes.",
    ),
    "along_heading.strut": (
        "The rack: the strut cannot lie on the side on which the pipes lie beside each other.",
        "Choose the side under the pipes.",
    ),
    "no_rise.one_of": ("{step}: give the rise, or what it goes over; one of the two.", "Write the rise."),
    "no_rise": ("{step}: a rise of nothing needs no bends.", "Write the rise, or remove the step."),
    "no_rise.slope": ("{step}: a rise of nothing needs no bends.", "Write the rise, or make it one bend."),
    "no_rise.rolled": ("{step}: it moves nowhere.", "Write rise and roll."),
    "no_rise.beyond": (
        "{step}: beyond it the pipe lies as high as over it, so it does not come down.",
        "Make it an offset, or let it lie lower beyond.",
    ),
    "no_rise.kick": ("{step}: it lifts nothing.", "Write the rise."),
    "no_kick": (
        "{step}: give the setback or the angle of the kick; one of the two.",
        "About three times the rise is a comfortable setback.",
    ),
    "no_shots": (
        "{step}: give the number of shots or the degrees of each shot; one of the two.",
        "Nine or more make a 90 that looks round.",
    ),
    "no_shots.too_many": (
        "{step}: that makes {shots} shots; {most} are planned at once.",
        "Give more degrees a shot.",
    ),
    "no_end": (
        "{step}: the end must be measured first, as the offset stands right before it.",
        "Write where the pipe ends.",
    ),
    "radius_too_small": (
        "{step}: no sweep is tighter than the shoe's own radius, {least}.",
        "Use a radius of {least} or more, or a plain 90.",
    ),
    "box_offset_not_needed": (
        "{step}: on this strap the pipe meets the knockout within {off}; no offset is needed.",
        "Run straight into the knockout.",
    ),
    "larger_radius": (
        "{step}: with the shots spaced over {gaps} gaps the radius comes out {radius} instead of {asked}.",
        "Use the exact spacing, or bend every pipe beside it the same way.",
    ),
    # Room along the run.
    "too_near.start": (
        "{step}: too little pipe before it. At {at} its bend would begin {short} before the start of the pipe.",
        "On this shoe {least} is the least that leaves room for it.",
    ),
    "too_near.bend": (
        "{step}: too little pipe before it. At {at} its bend would begin {short} before bend {bend} is finished.",
        "On this shoe {least} is the least that leaves room for it.",
    ),
    "bends_overlap.kick": (
        "{step}: the kick runs into the 90.",
        "Kick at least {short} farther from the 90; about three times the rise back is comfortable.",
    ),
    "bends_overlap.flatter": (
        "{step}: its bends run into each other on this shoe by {short}.",
        "Use a flatter angle, or more rise.",
    ),
    "bends_overlap.room": (
        "{step}: its bends run into each other on this shoe by {short}.",
        "Give it more room.",
    ),
    "bends_overlap.offset": (
        "{step}: a {rise} offset is too tight at {angle} on this shoe; its two bends run into each other.",
        "Use {flattest} or flatter, or a rise of {least} or more.",
    ),
    "end_too_near": (
        "The end: the pipe would end before its last bend is finished.",
        "End the pipe at {least} or more.",
    ),
    "too_many_bends": (
        "{step}: with it the run has more than {most} bends.",
        "End the run at a box, and measure the rest as a run of its own.",
    ),
    "too_many_bends.rack": (
        "The rack: its pipes have some {bends} bends together; {most} are planned at once.",
        "Make two racks of it, or end it at a box.",
    ),
    "in_window": ("{called}: {figure} is taken, {window}: {why}.", "Write another figure, if it serves better."),
    "in_window.middle": (
        "{called}: {figure} is taken, {window}: {why}, nearest to the middle.",
        "Write another figure, if it serves better.",
    ),
    "outside_window": ("{called}: {at} is not {window}.", "{figure} lies within."),
    "outside_window.end": ("The end: the open end at {at} is outside its window.", "Measure again."),
    "another_stick": (
        "The end: what is left of the stick, {left} beyond the last bend, is less than the {least} asked for.",
        "It takes a coupling and another stick; or let it end shorter.",
    ),
    # Limits.
    "too_many_degrees": (
        "The bends between two pull points add up to {degrees}°, over the {most}° allowed.",
        "Use flatter offsets, or put a pull point before step {step}. Check your local code.",
    ),
    "straight_at_connector.start": (
        "Only {straight} of straight pipe where the run starts; it may not seat in the connector.",
        "Keep {least} or more straight at the start box.",
    ),
    "straight_at_connector.end": (
        "Only {straight} of straight pipe where the run ends; it may not seat in the connector.",
        "Keep {least} or more straight at the end box.",
    ),
    "straight_at_connector.stamped": (
        "{step}: only {straight} of straight pipe is kept for the connector.",
        "Keep {least} or more.",
    ),
    "stamp_misses.under": (
        "{step}: the knockout stands {stands} off the pipe; the lever tool stamps {stamps}.",
        "Bend it on the shoe, or use straps that stand off {off} more.",
    ),
    "stamp_misses.over": (
        "{step}: the knockout stands {stands} off the pipe; the lever tool stamps {stamps}.",
        "Bend it on the shoe.",
    ),
    "stamp_misses.not_first": (
        "{step}: a lever tool stamps at the pipe's end, so it must be the first step.",
        "Put it first, or bend it on the shoe.",
    ),
    "knockout.start_over": (
        "The start box's knockout stands {off} over the pipe.",
        "Add a box offset, or use straps with that stand-off.",
    ),
    "knockout.start_under": (
        "The start box's knockout stands {off} under the pipe.",
        "Add a box offset, or use straps with that stand-off.",
    ),
    "knockout.end_over": (
        "The end box's knockout stands {off} over the pipe.",
        "Add a box offset, or use straps with that stand-off.",
    ),
    "knockout.end_under": (
        "The end box's knockout stands {off} under the pipe.",
        "Add a box offset, or use straps with that stand-off.",
    ),
    "supports": (
        "From {begins} along the pipe it hangs {span} free, over the {most} allowed: nothing else there rests.",
        "Strap it to something of its own there, or do the step another way. Check your local code.",
    ),
    "closure": (
        "The run ends {off} from the box as the box was measured on its own ({parts}).",
        "One of the measures is off; take the longest again.",
    ),
    # Couplings and pull points.
    "marker_in_bend": ("{step}: it would lie in a bend or beyond the pipe.", "Put it on a straight."),
    "coupling_in_bend.bend": (
        "The coupling that was put at {at} along the pipe would lie in a bend.",
        "Move it along, or let it find its own place.",
    ),
    "coupling_in_bend.beyond": (
        "The coupling that was put at {at} along the pipe would lie beyond the pipe.",
        "Move it along, or let it find its own place.",
    ),
    "coupling_in_bend.no_hold": (
        "The coupling that was put at {at} along the pipe leaves the shoe no hold: it needs {needs} from there to the "
        "bend.",
        "Move it along, or let it find its own place.",
    ),
    "coupling_misplaced.neighbour": (
        "The coupling that was put at {at} along the pipe comes within {needs} of a neighbour's in the rack.",
        "Move it along, or let it find its own place.",
    ),
    "coupling_misplaced.thing": (
        "The coupling that was put at {at} along the pipe would lie over what is in the way.",
        "Move it along, or let it find its own place.",
    ),
    "coupling_misplaced.bend": (
        "The coupling that was put at {at} along the pipe lies nearer to a bend than {needs}.",
        "Move it along, or let it find its own place.",
    ),
    "no_coupling_place": (
        "The run is longer than a stick of {stick} and no straight leaves room for its couplings.",
        "Spread the bends, put a box between, or cut it from longer sticks where Stock has them sold.",
    ),
    # Bending it.
    "short_straight.before": (
        "{step}: only {straight} of straight pipe before bend {bend}; this shoe needs {needs} there.",
        "Give it more room.",
    ),
    "short_straight.between": (
        "{step}: only {straight} of straight pipe between bends {before} and {bend}; this shoe needs {needs} there.",
        "Give it more room.",
    ),
    "short_straight.within": (
        "{step}: only {straight} of straight pipe between bends {before} and {bend}; this shoe needs {needs} there.",
        "Bend it at a flatter angle, or raise it more.",
    ),
    "short_straight.hook": (
        "{step}: only {straight} of straight pipe between bends {before} and {bend}; this shoe needs {needs} there.",
        "A shepherd's hook stands at least {back} from back to back on this shoe; its second 90 is made with the heel "
        "toward the first. Nearer, use a shoe of smaller radius, or two pieces and a coupling.",
    ),
    "short_straight.stamped": (
        "{step}: with its straight the lever tool's offset takes {needs}; only {straight} is straight there.",
        "Begin the bend farther from the box.",
    ),
    "doubtful_shoe": ("{why}", "Measure a 90 in scrap before anything is bent by them."),
    "crosses_thing": (
        "{step}: the pipe comes back {beside} beside this leg. If {thing} reaches so far, it would go {deep} into it "
        "there.",
        "Go over it there too, or measure how far it reaches.",
    ),
    "far_out.high": (
        "{called}: {what} of {written} is higher than any.",
        "Write it again, with its unit.",
    ),
    "far_out.angle": (
        "{called}: a bend of {angle} is hardly one; no angle finder can read so little.",
        "Write the angle again, or leave the step out.",
    ),
    "oval_straight": (
        "{step}: only {straight} of straight pipe between bends {before} and {bend}; within {needs} of a bend the "
        "wall is oval, and bent again there it flattens.",
        "Give it more room, or bend slowly with the shoe full on the pipe.",
    ),
    "no_order": (
        "Piece {piece}: its bends can be made in no order. {why}",
        "Give them more room, do a step another way, or put a coupling or a box between.",
    ),
    "order_not_found": (
        "Piece {piece}: of its {bends} bends no order of bending was found, as far as it was searched; there "
        "may be one.",
        "Arrange it yourself at the bench, or put a coupling or a box between.",
    ),
    "bend_long": (
        "{step}: the shoe finds no hold so near end B of piece {piece}.",
        "Leave {spare} extra there, bend it, then cut it off.",
    ),
    # The pipe as bent in simulation.
    "runs_into_thing": (
        "{step}: the pipe would go {deep} deep into {thing}.",
        "Raise it more, bend it at a flatter angle, or begin it earlier.",
    ),
    "runs_into_thing.saddle": (
        "{step}: the pipe would go {deep} deep into {thing}.",
        "Go over it with four bends and its width, or at a flatter angle.",
    ),
    "runs_into_thing.back": (
        "{step}: the pipe comes back {beside} beside this leg, where {thing} still is, and would go {deep} into it.",
        "Go over it there too, or turn beyond it.",
    ),
    "little_clearance": (
        "{step}: it clears {thing} by {clears}, less than the {wanted} that was asked for.",
        "Raise it more, bend it at a flatter angle, or begin it earlier.",
    ),
    "little_clearance.saddle": (
        "{step}: it clears {thing} by {clears}, less than the {wanted} that was asked for.",
        "Go over it with four bends and its width, or at a flatter angle.",
    ),
    "runs_into_itself": (
        "{step}: after it the pipe runs into itself, after {before}.",
        "Measure these legs again, or let one of them pass the other with an offset.",
    ),
    "runs_into_itself.start": (
        "{step}: after it the pipe runs into itself, where it begins.",
        "Measure these legs again, or let one of them pass the other with an offset.",
    ),
    # Racks of pipe.
    "rack_spacing.one_of": (
        "The rack: give the gap between the pipes, or the spacing of their centres; one of them.",
        "Write the gap.",
    ),
    "rack_spacing.too_close": (
        "{pipes}: {spacing} from centre to centre is less than they are thick.",
        "They touch at {touching}; space them wider.",
    ),
    "not_in_rack": ("{step}: the whole rack cannot go this way; {why}.", "{remedy}"),
    "not_in_rack.leaves": (
        "Pipe {pipe}: it cannot leave after step {step}; the lead has {steps}.",
        "Let it leave earlier.",
    ),
    "rack_touches": ("{pipes} run into each other{where}, by {by}.{also}", "{remedy}"),
    "rack_gap": ("{pipes} come within {least}{where}; {asked} was asked.{also}", "{remedy}"),
}
