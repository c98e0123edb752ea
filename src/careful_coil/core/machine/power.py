"""Volt-amperes, power factor, locked-rotor amps, flux and torque off the rated supply."""

import math

from careful_coil.core.errors import ValueOutOfRange

# NEMA MG 1, 10.37.2: locked-rotor kVA per horsepower, upper end of each letter; V has none
CODE_LETTERS: dict[str, float] = {
    **{"A": 3.15, "B": 3.55, "C": 4.0, "D": 4.5, "E": 5.0, "F": 5.6, "G": 6.3, "H": 7.1},
    **{"J": 8.0, "K": 9.0, "L": 10.0, "M": 11.2, "N": 12.5, "P": 14.0, "R": 16.0, "S": 18.0},
    **{"T": 20.0, "U": 22.4, "V": math.inf},
}


def volt_amperes(volt: float, amp: float, phases: int) -> float:
    """Return V·A of one phase, √3·V·A of three, in VA."""
    return volt * amp * (math.sqrt(3) if phases == 3 else 1.0)


def power_factor(volt: float, amp: float, watt: float, phases: int) -> float:
    """Return watts over volt-amperes, dimensionless. Raises: ValueOutOfRange above 1."""
    found = watt / volt_amperes(volt, amp, phases)
    if found > 1:
        raise ValueOutOfRange(
            f"{watt:g} W", f"at most {volt_amperes(volt, amp, phases):.4g} W", "Watts over VA."
        )
    return found


def locked_rotor_kva_per_hp(letter: str) -> tuple[float, float]:
    """Return the range of a code letter in kVA per hp, infinite above V's lower end.

    Source: NEMA MG 1, 10.37.2. Raises: ValueOutOfRange for a letter that is none (I, O, Q too).
    """
    letters = list(CODE_LETTERS)
    wanted = letter.strip().upper()
    if wanted not in CODE_LETTERS:
        raise ValueOutOfRange(letter, "a code letter A to V, without I, O and Q")
    at = letters.index(wanted)
    return (CODE_LETTERS[letters[at - 1]] if at else 0.0), CODE_LETTERS[wanted]


def locked_rotor_amps(letter: str, hp: float, volt: float, phases: int) -> tuple[float, float]:
    """Return the range of locked-rotor line amps in A; the upper end infinite for V."""
    low, high = locked_rotor_kva_per_hp(letter)
    each = 1000.0 * hp / volt_amperes(volt, 1.0, phases)
    return low * each, high * each


def flux_ratio(volt: float, hertz: float, rated_volt: float, rated_hertz: float) -> float:
    """Return volts per hertz over rated volts per hertz (E = 4.44·f·N·Φ)."""
    return (volt / hertz) / (rated_volt / rated_hertz)


def torque_ratio(volt: float, hertz: float, rated_volt: float, rated_hertz: float) -> float:
    """Return breakdown torque over rated breakdown torque: the square of the flux ratio.

    At rated hertz it is the square of the volts (Fitzgerald, Kingsley and Umans, ch. 6).
    """
    return flux_ratio(volt, hertz, rated_volt, rated_hertz) ** 2
