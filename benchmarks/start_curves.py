"""How long start curves, a run-up and a fit take, against plain loops over the same model.

Curves: all speeds in one call against one call a speed. Run-up: Runge–Kutta on curves against small
equal steps that solve the network each time; both must agree on the seconds to switch-over.

By hand: `.venv/bin/python benchmarks/start_curves.py`. Prints milliseconds and the ratios of one run.
"""

import math
import random
import sys
import time
from collections.abc import Callable
from pathlib import Path

sys.path.insert(0, str(Path(__file__).parents[1]))

from tests.core.machines import invented
from tests.core.test_machine import START_CAN

from careful_coil.core.machine.curves import POINTS, curve
from careful_coil.core.machine.estimate import estimate
from careful_coil.core.machine.motor import Motor
from careful_coil.core.machine.run_up import OUT_SHARE, Load, run_up

ROUNDS, STEP = 9, 1e-3  # the plain loop's steps in s
GOAL_CURVE_MS, GOAL_RUN_UP_MS = 20.0, 100.0
LOAD = Load(inertia=0.02, friction=0.3, torque=0.5)


def middle(work: Callable[[], object]) -> float:
    """Return the middle of several times, in ms."""
    work()
    taken = []
    for _ in range(ROUNDS):
        begun = time.perf_counter()
        work()
        taken.append(1000 * (time.perf_counter() - begun))
    return sorted(taken)[ROUNDS // 2]


def plain_curve(motor: Motor) -> list[float]:
    """Return torque and amps at each speed, a call each."""
    found = []
    for k in range(POINTS):
        one = motor.steady(1 - k / (POINTS - 1), "start")
        found.append(float(motor.torque_nm(one)[0]))
    return found


def plain_run_up(motor: Motor) -> float:
    """Return the seconds to switch-over by small equal steps, the network solved at each."""
    rpm, seconds = 0.0, 0.0
    while rpm < OUT_SHARE * motor.sync_rpm and seconds < 10:
        share = rpm / motor.sync_rpm
        one = motor.steady(1 - share, "start")
        drag = motor.machine.drag_watt / (2 * math.pi * motor.sync_rpm / 60) * share
        net = float(motor.torque_nm(one)[0]) - drag - LOAD.at(share)
        rpm += net / LOAD.inertia * STEP * 60 / (2 * math.pi)
        seconds += STEP
    return seconds


def main() -> None:
    """Time all and print."""
    motor = START_CAN
    ours, plain = middle(lambda: curve(motor, "start")), middle(lambda: plain_curve(motor))
    print(
        f"curve of {POINTS} points: {ours:.1f} ms (goal {GOAL_CURVE_MS:g}); one by one {plain:.0f} ms, "
    )
    print(f"  ratio {plain / ours:.0f}")
    up = middle(lambda: run_up(motor, LOAD, seconds=3))
    begun = time.perf_counter()
    slow = plain_run_up(motor)
    stepped = 1000 * (time.perf_counter() - begun)
    over = run_up(motor, LOAD, seconds=3).switch_over
    print(f"run-up: {up:.1f} ms (goal {GOAL_RUN_UP_MS:g}); in steps of 1 ms {stepped:.0f} ms,")
    print(f"  ratio {stepped / up:.0f}; switch-over after {over:.4f} s, in steps {slow:.4f} s")
    chance = random.Random(1)
    made = [invented(chance) for _ in range(9)]
    estimate(made[0].plan, made[0].facts)
    taken = []
    for one in made:
        begun = time.perf_counter()
        estimate(one.plan, one.facts)
        taken.append(1000 * (time.perf_counter() - begun))
    print(f"a fit to plate and ohms: {sorted(taken)[4]:.0f} ms, at most {max(taken):.0f} ms")


if __name__ == "__main__":
    main()
