"""Limits and schools of the shop: one frozen object, every figure with its source."""

from dataclasses import dataclass, fields, replace

from careful_coil.core.errors import BadDocument


@dataclass(frozen=True, slots=True)
class Limit:
    """A figure a verdict hangs on, with its unit and where it comes from."""

    value: float
    unit: str
    source: str


@dataclass(frozen=True, slots=True, kw_only=True)
class Settings:
    """The shop's limits. A settings file may change the figures, never what is a hold."""

    balance_watch: Limit = Limit(2.0, "%", "shop default for random windings")
    balance_hold: Limit = Limit(5.0, "%", "shop default for random windings")
    insulation_minimum: Limit = Limit(5.0, "MΩ", "IEEE 43: random wound, below 1 kV, at 40 °C")
    earth_bond: Limit = Limit(0.1, "Ω", "shop default, stud to bare frame")
    line_ohm_apart: Limit = Limit(3.0, "%", "what a hookup check can tell from a coil's spread")
    supply_apart: Limit = Limit(10.0, "%", "NEMA MG 1: rated volts ±10 % at rated frequency")
    supply_edge: Limit = Limit(5.0, "%", "preferred band; torque goes with volts squared")
    repair_threshold: Limit = Limit(60.0, "%", "shop default: repair below this share of a new one")
    frame_ohm: Limit = Limit(2e6, "Ω", "ohmmeter's first look only")

    def changed(self, figures: dict[str, float]) -> "Settings":
        """Return settings with other figures. Raises: BadDocument for an unknown name or figure."""
        known = {f.name for f in fields(self)}
        limits: dict[str, Limit] = {}
        for name, figure in figures.items():
            if name not in known:
                raise BadDocument("settings", name, "one of " + ", ".join(sorted(known)))
            if isinstance(figure, bool) or not isinstance(figure, int | float) or not figure > 0:
                raise BadDocument(f"settings, {name}", str(figure), "a number above nothing")
            old: Limit = getattr(self, name)
            limits[name] = Limit(float(figure), old.unit, "this shop's setting")
        return replace(self, **limits)
