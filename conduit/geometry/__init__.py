"""General 3-D geometry of a bent pipe: vectors, frames and the centreline path."""
