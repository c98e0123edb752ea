"""The dew point: a winding colder than it is wet, whatever the tester says."""

import math

from careful_coil.core.errors import ValueOutOfRange

# Magnus formula over water, −40 to 50 °C: Alduchov and Eskridge, J. Appl. Meteor. 35, 1996
_A, _B = 17.625, 243.04
COLDEST_C, HOTTEST_C = -40.0, 50.0


def dew_point(air_c: float, humidity_percent: float) -> float:
    """Return the dew point in °C of air at `air_c` °C and a relative humidity in per cent.

    Raises: ValueOutOfRange outside −40 to 50 °C and 1 to 100 %.
    """
    if not COLDEST_C <= air_c <= HOTTEST_C:
        raise ValueOutOfRange(f"{air_c:g} °C", f"air of {COLDEST_C:g} to {HOTTEST_C:g} °C")
    if not 1 <= humidity_percent <= 100:
        raise ValueOutOfRange(f"{humidity_percent:g} %", "a humidity of 1 to 100 %")
    share = math.log(humidity_percent / 100.0) + _A * air_c / (_B + air_c)
    return _B * share / (_A - share)
