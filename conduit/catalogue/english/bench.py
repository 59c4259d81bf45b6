"""The bench: turning the pipe, readings, cautions, the cut, stamping, fitting, correcting."""

BENCH: dict[str, str | tuple[str, str]] = {
    # Turning the pipe.
    "roll.first": "First bend: any way up. Pencil a line along the top; it is 12 o'clock.",
    "roll.none": "Do not turn the pipe: bend {bend} still points {stands}.",
    "roll.until": "Turn the pipe until bend {bend} points {stands}, seen from A.",
    "roll.half": "Turn the pipe half a turn: bend {bend} points {stands}. A clamp level set before reads 0 again.",
    "roll.clockwise": "Turn the pipe {angle} clockwise seen from A: bend {bend} points {stands}. A clamp level set "
    "before then reads {level}.",
    "roll.anticlockwise": "Turn the pipe {angle} counterclockwise seen from A: bend {bend} points {stands}. A clamp "
    "level set before then reads {level}.",
    "stands.up": "straight up",
    "stands.down": "straight down",
    "stands.to": "to {clock}",
    "clock.hour": "{hour} o’clock",
    "turned.clockwise": "{angle} clockwise",
    "turned.anticlockwise": "{angle} counterclockwise",
    # What tape and level must read.
    "reading.legs": "Angle between the two legs",
    "reading.end_b": "{hooked} to end B",
    "reading.back": "{hooked} to the back of this bend, a straightedge along it",
    "hooked.end_a": "End A",
    "hooked.end_b": "End B",
    "hooked.back": "Back of bend {bend}",
    "reading.sweep": "The sweep so far, {shots} shots together",
    "reading.corner": "{hooked} to this bend’s outside corner, a straightedge on the other leg",
    "reading.saddle_legs": "The legs before and after the saddle",
    "reading.rise": "Straightedge on the leg before, to the same side of the leg after",
    "reading.height": "Straightedge along the underside of the leg before the saddle: to the underside of its top",
    "reading.kick": "Straightedge along the leg that is not kicked: distance to the 90’s far leg, same side "
    "to same side",
    "reading.outer_legs": "The legs before and after the offset",
    "reads.parallel": "parallel",
    "reads.in_line": "in one line",
    # How the dial's angle is found.
    "found.handle": "The handle stands straight up then.",
    "found.between_lines": "No line for it on the shoe: {beside}, then check with the angle finder.",
    "beside.hair_past": "just past {line}",
    "beside.hair_short": "just short of {line}",
    "beside.between": "between {one} and {other}",
    "beside.under": "under {line}",
    "beside.past": "past {line}",
    # Which mark is proposed.
    "use.none": "No mark of this bend lies on the pipe; it begins too near the end.",
    "use.arrow_a": "Arrow with the hook toward A: every mark is measured from A, and the hook faces it.",
    "use.arrow_b": "Hook toward B: with the hook toward A the mark would be off the pipe.",
    "use.star_a": "On the star, as the arrow's mark would be off the pipe.",
    "use.star_b": "On the star with the hook toward B, as no other mark lies on the pipe.",
    "use.notch": "The notch is the middle of a 45: it goes on the saddle's centre.",
    "use.no_notch": "Not the notch: it is the middle of a 45 only, and this centre bend is not 45.",
    "use.outer": "Outer bend of a saddle: the hook faces the centre.",
    # Cautions.
    "caution.machine": "Hands clear of the shoe while it moves, and of both ends.",
    "caution.air": "In the air: handle on the floor and held there; push the pipe down close to the shoe.",
    "caution.hold": "Push between the shoe and the bend that is made, or at that bend: beyond it you would open it.",
    "caution.heavy": "Heavy in the air, and easy to lose your footing: have someone help, or bend it in a vise, over "
    "an edge or in a machine.",
    "caution.heavy_with_helper": "Heavy in the air: your helper pushes with you, both beside the pipe and firm "
    "on both feet.",
    "caution.edge": "Over an edge: stand on firm ground behind it; the bent part hangs free, and nobody stands "
    "under it.",
    "caution.knuckles": "The bent part stands close by the handle: mind your knuckles, and hold the handle at its end.",
    "caution.foot": "Keep the foot firm on the heel to the last: a shoe that slips throws the handle, and too little "
    "foot ripples or kinks the inside.",
    "caution.comes_down": "End {end} comes down through {way}: nobody may stand in its way. Move it close to the shoe; "
    "moved far out the pipe bows.",
    "caution.swings_up": "End {end} swings up through {way}: nobody may stand in its way. Move it close to the shoe; "
    "moved far out the pipe bows.",
    "caution.eggs": "So near the end the pipe eggs easily: bend slowly, and keep the shoe full on the pipe.",
    "caution.back_line": "Draw a line along the back of this box offset: the 90 after it is rolled by that line.",
    "caution.finished_offset": "Move end {end} by the straight before its finished offset; pulled at its end it opens.",
    "caution.begin_in_air": "Or start it in the air to {degrees}°, turn the pipe over, and finish on the floor: it is "
    "clear by then.",
    # The cut.
    "cut.square": "Cut {length}, square. Ream both ends.",
    "cut.spare": "Cut {cut}: {length}{spares}. Ream end {end}.",
    "cut.spare_both": "Cut {cut}: {length}{spares}. Ream both ends after they are cut to length.",
    "cut.to_spare": " and {spare} extra on end {end}",
    "cut.comes_off": "by plan {length} comes off",
    "cut.along": "by plan {length} along the pipe",
    "cut.threads": "Thread each end that was cut, then ream it; an end with the factory's thread stays as it is.",
    "cut.too_long": "No stick is longer than {longest}: leave less extra, or move a coupling.",
    "cut.other_shoe": "For {shoe}, not for the run’s {own}: {length} between its ends, not {before}.",
    "cut.other_shoe_same": "For {shoe}, not for the run’s {own}: {length} between its ends, the same on both.",
    "trim.box": "After bending, dry-fit it: mark end {end} where the connector’s shoulder comes, cut {shoulder} short "
    "of the mark ({by_plan}), ream it.",
    "trim": "After bending, dry-fit it, cut end {end} to length ({by_plan}), ream it.",
    # A lever tool's stamp.
    "stamp.counted": "End {end} keeps {reach} straight until the lever tool stamps it; the cut counts that.",
    "stamp.pull": "When all else is bent, and end {end} is cut to length: put it into the lever tool with {straight} "
    "beyond the offset. {way} One pull.",
    "stamp.check": "Straightedge along the leg: end {end} is {rise} away from it, and parallel to it.",
    "stamp.any_way": "Any way round.",
    "stamp.way": "With the pipe beyond bend {bend} at 12 o’clock, seen from end {end}, the end moves to {clock}.",
    # Fitting.
    "fit.and": " and ",
    "fit.reamed": "Both ends reamed, no bare cut edge.",
    "fit.seated": "Each end seen inside its fitting, no more than {shoulder} from the shoulder.",
    "fit.rings": "{boxes}: only the rings up to {size} taken out; one too many wants a reducing washer.",
    "fit.locknuts": "{boxes}: locknut driven tight, as the pipe may be the grounding path.",
    "fit.bushing": "A bushing on the open end.",
    "fit.threads": "Couplings pushed home to the last thread.",
    "fit.joints": "Couplings pushed home and tight.",
    "fit.screws": "Set screws to the front, where a screwdriver reaches them.",
    "fit.straps": "Straps at {places} along it: within {near} of each box, then every {every}.",
    "fit.plumb": "Plumb and level.",
    "fit.pencil": "Pencil marks wiped off.",
    # Correcting.
    "correct.go_on": "The pipe still fits; go on as planned.",
    "correct.then_go_on": "Then go on as planned.",
    "correct.near_enough": "As close as hands and angle finder get; what is off at the end is sprung in at the straps.",
    "correct.rest": "Bend the rest to the new marks and angles.",
    "correct.then_rest": "Then bend the rest to the new marks and angles.",
    "correct.cut": "Move the cut at end {end}.",
    "correct.then_cut": "Then move the cut at end {end}.",
    "correct.cannot_come": "In this order bend {bend} cannot be made then: {why}. Try another order, or its hook to "
    "the other end.",
    "correct.close": "Back in the shoe, mark on the same reference: {bends}.",
    "correct.close_one": "close bend {bend} by {by}°",
    "correct.and": " and ",
    "correct.open": "Take {by}° out of bend {bend}: one leg under the foot, push the other open a little at a time, "
    "and read.",
    "correct.open_in_vise": "Take {by}° out of bend {bend} in a vise, with a length of pipe over the free leg as a "
    "lever, a little at a time, and try after each.",
    "correct.spring": "End B does not quite come to its place: spring it there at the straps or draw it up at the "
    "fitting, if what is off is little enough here; else start another.",
    "correct.open_sweep": "Take {by}° out of the sweep that ends with bend {bend}, a little along all of it, over the "
    "knee or in a wide shoe, and read.",
    "correct.twist": "Twist bend {bend} back by {by}°, flat against a wall or in a vise, a little at a time.",
    "correct.scrap_dog_leg": "Scrap it: bend {bend} has a dog-leg of {by}°, and the bends that are left cannot make up "
    "for it.",
    "correct.scrap_over": "Scrap it: bend {bend} is {by}° over and cannot be opened by so much.",
    "correct.scrap": "Scrap it: neither the bends that are left, nor a cut, nor a correction bring the end back.",
    # Why there is no sheet.
    "stick.no_piece": "this run has no piece {piece} to bend",
    "stick.no_bend": "piece {piece} has no bend {bend}",
    "stick.that_shoe": "that shoe",
    "stick.other_shoe": "on {shoe} this run cannot be bent. {why}",
    "stick.too_long": "on {shoe} piece {piece} would be {length}, and a stick is {stick}; move its coupling first",
}
