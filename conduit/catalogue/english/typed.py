"""What is wrong with a length, an angle, a field note, and how it would be written."""

TYPED: dict[str, str | tuple[str, str]] = {
    "length.none": "write a length, such as 71 1/2",
    "length.no_number": "that is not a number; write a length, such as 71 1/2",
    "length.negative": "a length cannot be negative; measure the other way and write it without the minus",
    "length.too_far": "that is over 1,000 ft ({longest} in); write a length within it",
    "length.too_long": "that is too long for a length; write it like 71 1/2",
    "length.blank": "nothing is written here; write a length, such as 71 1/2",
    "length.unreadable": "“{text}” is not a length; write it like 71 1/2, 5' 11-1/2\", 71.5 or 1816mm",
    "length.which_unit": "“{bare}” beside “{other}” may be in either unit; write {bare} in, or {bare} mm",
    "length.two_ways": "“{text}” may be {one} or {other}; write one of them",
    "length.feet_apart": "“{text}” may be feet and inches; then write {feet}",
    "length.metric_fraction": "“{text}” has no unit, and a tape in millimetres no fractions; write {text} in",
    "length.inches_after_feet": "{inches} inches after feet: that is a foot or more; write up to 11 there, or all in "
    "inches",
    "length.decimal_and_fraction": "write either a decimal or a fraction, not both",
    "length.by_zero": "{top}/{bottom}: nothing can be divided by 0; a tape has halves to 64ths",
    "length.no_division": "{top}/{bottom}: a tape has halves, quarters, eighths, 16ths, 32nds and 64ths",
    "length.an_inch_or_more": "{top}/{bottom} is an inch or more; leave a space between inches and fraction, as in "
    "71 1/2",
    "angle.none": "write the angle in degrees, such as 30 or 22 1/2",
    "angle.too_far": "an angle is from 0 to {most} degrees",
    "angle.unreadable": "“{text}” is no angle; write degrees, such as 30 or 22 1/2",
    "angle.minutes": "a degree has 60 minutes; {minutes} are too many",
    "angle.parts": "{top}/{bottom}: write parts of a degree as 1/2, 1/4 or .5",
    "angle.open": "must be more than 0.1 and less than 90",
    "note.too_long": "the line is over {most} letters long",
    "note.no_such_line": "no line begins like this; begin with run, pipe, start, end, or a step: 90, bend, offset, "
    "saddle …",
    "note.expected": "expected something like: {example}",
    "note.not_understood": "not understood here; expected something like: {example}",
    "document.no_object": "a run document is a JSON object with start, steps and end",
    "document.no_steps": "“steps” must be a list",
    "document.too_many_steps": "{steps} steps; a run has at most {most}",
}
