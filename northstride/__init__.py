"""North Stride: screening of hips, ankles and feet, for licensed or supervised practitioners."""

__version__ = "0.1.0"

CAUTION = (
    "North Stride supports licensed or supervised practitioners. It measures, remembers and "
    "reasons in the open. It does not diagnose, and it does not replace local protocols, scope of "
    "practice or medical advice: local protocols come first."
)
