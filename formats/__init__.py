"""Open formats out: of a run, a rack or a job, each by the library that is usual for it.

Knows the core; no Django, no HTTP, no database. What is written comes back as bytes.
"""
