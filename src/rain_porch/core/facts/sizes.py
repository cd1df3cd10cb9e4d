"""Units of area, in square feet (international foot; acre = 4,840 square yards)."""

from __future__ import annotations

SQFT_PER_ACRE, SQFT_PER_SQUARE_METRE = 43_560.0, 10.763910417
