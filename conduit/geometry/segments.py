"""Distances between straight segments in space. Inches."""

from conduit.geometry.vectors import Vec


def segment_distance(a: Vec, b: Vec, c: Vec, d: Vec) -> float:
    """Least distance between the segments ab and cd."""
    return segment_closest(a, b, c, d)[0]


def segment_closest(a: Vec, b: Vec, c: Vec, d: Vec) -> tuple[float, float, float]:
    """Least distance between the segments ab and cd (closest points of two clamped lines), at which share of each."""
    u, v, w = b.minus(a), d.minus(c), a.minus(c)
    uu, uv, vv, uw, vw = u.dot(u), u.dot(v), v.dot(v), u.dot(w), v.dot(w)
    down = uu * vv - uv * uv
    s = _clamp((uv * vw - vv * uw) / down) if down > 1e-12 else 0.0
    t = _clamp((uv * s + vw) / vv) if vv > 1e-12 else 0.0
    s = _clamp((uv * t - uw) / uu) if uu > 1e-12 else 0.0
    return a.along(u, s).minus(c.along(v, t)).length(), s, t


def _clamp(value: float) -> float:
    return min(1.0, max(0.0, value))
