"""Cut plans, what to bring, and lists of scrap."""

STOCK: dict[str, str | tuple[str, str]] = {
    "sticks.none": "No new sticks needed.",
    "sticks.at_least": "{sticks}; at least {least}.",
    "sticks.proved": "{sticks}; it cannot be done with {fewer}.",
    "count.sticks": ("1 stick", "{count} sticks"),
    "count.sticks.none": "no stick",
    "count.couplings": ("1 coupling", "{count} couplings"),
    "count.couplings.none": "no coupling",
    "count.pieces": ("1 piece", "{count} pieces"),
    "count.none": "none",
    "stayed.all": "Every piece stays where it was.",
    "stayed.none": "None of {pieces} stay where they were.",
    "stayed.some": ("1 of {pieces} stays where it was.", "{count} of {pieces} stay where they were."),
    "choice": "{sticks}, {couplings}: {cost}",
    "choice.lengths": "{sticks}, {couplings} ({lengths}): {cost}",
    "choice.length": "{count} of {length}",
    "price.by_length": "{length} has no price: taken as {price}, by its length.",
    "pin.not_on_run": "The piece pinned from {start} to {end} does not lie on the run as it is now; its pin "
    "is left out.",
    "pin.not_on_rack": "The piece pinned from {start} to {end} is pinned to {scrap}, which is not on the rack; its pin "
    "is left out.",
    "pin.too_long": "The piece pinned from {start} to {end} is longer than what it is pinned to; its pin is left out.",
    "left_out.unfinished": "The run is not finished.",
    "left_out.none_long_enough": "No pipe that is sold or lies on the rack is long enough where couplings may not be.",
    "left_out.taken": "It needs pipe longer than any that is sold; what the rack has of it is taken by other runs of "
    "this job.",
    "looked_at": "{some} of {all} pieces on the rack were looked at, those that serve best: the longest, and a spread "
    "of the other lengths.",
    "bring.more_come": "{joint}; {count} more come on the new sticks",
    "bring.start_of": "start of {run}",
    "bring.end_of": "end of {run}",
    "bring.a_run": "a run",
    "bring.a_rack": "a rack",
    "bring.standing_off": "standing off {off}",
    "bring.tight": "one-hole, tight",
    "bring.struts": "{rack}: pipes at {places}",
    "bring.box": "{box}: {runs}",
    "scrap.expected": "write size, material, length, as 3/4 EMT 41 3/8; then x2 for two alike, and at bay 2 for the "
    "place",
    "scrap.no_piece": "“{line}” is not a piece; {expected}.",
    "scrap.too_long": "the line is too long to be a piece; write one piece a line.",
    "scrap.no_size": "“{size}” is no trade size; they are {sizes}.",
    "scrap.no_material": "“{material}” is no material; it is EMT, IMC or rigid.",
    "scrap.no_length": "length “{length}”: {why}.",
    "scrap.no_count": "“{count}” is no count; write 1 to {most}.",
    "scrap.no_end": "an end is {ends} or {last}.",
}
