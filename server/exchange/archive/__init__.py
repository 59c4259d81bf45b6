"""A job, or all that a crew has, as one file: a zip of records (JSON Lines), photos and texts, with checksums.

`container` is the zip with its manifest; `tables` says what of the database is in it; `records` turns rows into JSON
and back; `packing` writes one, `looking` tells what one says, `unpacking` makes it part of a crew.
"""
