"""What test bends and logged bends tell of a shoe."""

SHOES: dict[str, str | tuple[str, str]] = {
    "calibration.no_ninety": "no test bend is given; bend a 90 in scrap and measure both legs",
    "calibration.no_dial": "no test bend is given; bend to a dial angle, let go, read the angle finder",
    "calibration.falls": "a larger dial angle gave a smaller bend; check the readings",
    "calibration.legs_exchanged": "Test {test}: its two legs look exchanged; the first is the one with the pencil "
    "mark.",
    "calibration.apart": "These test bends are {apart} apart; those of one shoe lie much nearer. Bend another, or "
    "leave out the one that is off.",
    "calibration.dial_off": "A dial of {dial}° that reads {read}° is far off; read both again.",
    "figure.deduct": "deduct",
    "figure.gain": "gain",
    "learned.none": "No bend logged yet shows its {figure}.",
    "learned.in_use": (
        "1 bend shows a {figure} of {mean}; {in_use} is in use.",
        "{count} bends show a {figure} of {mean}; {in_use} is in use.",
    ),
    "learned.stands": (
        "1 bend shows a {figure} of {mean}; the {in_use} in use stands.",
        "{count} bends show a {figure} of {mean}; the {in_use} in use stands.",
    ),
    "learned.dial_off": (
        "1 bend shows true = {factor} × dial {constant}°; it is up to {off}° from what is in use.",
        "{count} bends show true = {factor} × dial {constant}°; it is up to {off}° from what is in use.",
    ),
    "learned.dial_stands": (
        "1 bend shows true = {factor} × dial {constant}°; what is in use stands.",
        "{count} bends show true = {factor} × dial {constant}°; what is in use stands.",
    ),
    "hands.by_eye": "by eye",
    "hands.finder": "with angle finder and level",
    "hands.sigmas": "a mark {mark} off, an angle {angle}°, a roll {roll}°",
}
