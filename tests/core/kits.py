"""Motors with every kind of start gear and switch that a plan can place."""

from careful_coil.core.connect import Hookup, Plan, Plate, Supplied
from careful_coil.core.ways import plans_of
from careful_coil.core.ways.usual import THROW, USUAL
from careful_coil.core.winding import ARRANGEMENTS
from careful_coil.core.winding.single_phase import START_COILS


def motor_of(plan: Plan) -> Hookup:
    """The plan on its own supply, with a start winding of thinner wire where there is one."""
    known = ARRANGEMENTS[plan.arrangement]
    coils = known.inside(plan.variant).coils
    bare = [p for p in plans_of(plan.arrangement, plan.variant) if p.start == "direct"]
    factors = sorted({p.factor for p in bare if p.family == plan.family or not p.family})
    volts = tuple(115.0 * f / factors[0] for f in factors)
    thin = 6.0 if THROW in plan.devices else 14.0
    return Hookup(
        arrangement=plan.arrangement,
        variant=plan.variant,
        joints=plan.joints,
        devices=plan.devices,
        plate=Plate(tuple((v, v) for v in volts), 50.0),
        supply=Supplied(phases=known.phases, volt=115.0 * plan.factor / factors[0], hertz=50.0),
        coil_ohm={c.name: thin if c.like in START_COILS else 6.0 for c in coils},
        family=plan.family,
        rpm=1430.0,
    )


def motors() -> dict[str, Hookup]:
    """Every kit joined in each way a plan knows, forward."""
    return {
        f"{name}: {plan.connection}": motor_of(plan)
        for name, (slug, variant, devices) in USUAL.items()
        for plan in plans_of(slug, variant, devices)
        if not plan.reversed
    }
