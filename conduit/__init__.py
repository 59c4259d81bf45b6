"""The core of Crelda: conduit runs worked out from what a tape measured.

Pure functions over frozen data. Lengths are inches and angles radians inside; text forms and
degrees are for the edges. Nothing here knows a web framework, a database or a file.
"""
