"""Words of the trade as the program uses them, in British and American terms, each in a sentence."""

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Word:
    """A word by its British and its American name, what it means, the handbook page that speaks of it."""

    british: str
    american: str
    meaning: str
    page: str


def _words(text: str) -> tuple[Word, ...]:
    found = []
    for line in text.strip().splitlines():
        british, american, meaning, page = (piece.strip() for piece in line.split("|"))
        found.append(Word(british, american or british, meaning, page))
    return tuple(sorted(found, key=lambda w: w.british.lower()))


WORDS: tuple[Word, ...] = _words(
    """
    surge test | | a pulse into each phase: like ones ring alike, shorted turns ring faster | insulation
    balance | | how near like coils or lines read to each other, in per cent of their mean | insulation
    bleed resistor | | a resistor across a capacitor that drains it; never relied on by hand | start-gear
    bond | | the low ohms between the earth terminal and bare metal of the frame | insulation
    breakaway voltage | | the volts on a slow ramp at which the shaft begins to turn | mechanics
    bush | sleeve bearing | a plain bearing fed with oil by a wick | mechanics
    capacitor start | | a single-phase motor whose start winding has a capacitor and a switch that opens | start-gear
    centrifugal switch | | opens the start circuit at about three quarters of speed | start-gear
    circuits in parallel | | the branches a phase of a winding is joined in | winding
    class of insulation | | the letter of the °C its insulation bears: B (130), F (155), H (180) | insulation
    coast-down time | | seconds a spun shaft runs on by hand | mechanics
    coil group | | the coils of one phase under one pole | winding
    delta | | each phase between two lines | connect
    distribution factor | | what spreading a group over slots takes off its volts | winding
    drive end | | the end of the shaft the load is on | mechanics
    earth | ground | the protective conductor, and what is joined to it | insulation
    end shield | end bell | what carries a bearing at an end of the frame | mechanics
    ESR | | a capacitor's own ohms in series, its loss | start-gear
    flash test | hipot | a high-voltage test of the insulation, once after a rewind | insulation
    flex | cord | the flexible lead of an appliance or tool | mechanics
    flux density | | how strongly the iron is driven, in tesla | winding
    full pitch | | a coil as wide as a pole | winding
    hold | | a verdict: found bad, it may not go | release
    kick test | | a battery touched to one coil, a needle watched on another: which end is which | leads
    layers | | coil sides in a slot, one or two | winding
    line ohms | | ohms between the supply leads once all joints are made | connect
    misconnection | | a joint that is not the one it should be | connect
    non-drive end | opposite drive end | the other end of the shaft, often the fan's | mechanics
    permanent split capacitor | | a single-phase motor whose capacitor stays in | start-gear
    phase sequence | phase rotation | the order in which the lines come: it decides which way a motor turns | connect
    polarization index | | ten-minute megohms over one-minute megohms | insulation
    protector | | a switch that opens by heat; automatic or reset by hand | start-gear
    PTC | | a resistor that opens the start circuit by its own heat | start-gear
    reduced-voltage run | | a short run at a quarter of the volts: three line amps prove the joints | connect
    run winding | | the winding that stays on the line; the main one | leads
    series star | series wye | halves of each phase in series: the higher volts | connect
    parallel star | parallel wye | halves of each phase in parallel: the lower volts | connect
    shaft feel | | how it turns by hand: free, rough, binding, rubbing, seized | mechanics
    slip | | how far a rotor falls behind its field, of synchronous speed | test-run
    slot fill | | wire area over slot area | winding
    split phase | | a single-phase motor whose start winding has more ohms and a switch | start-gear
    star | wye | the phases' ends joined in one point | connect
    start winding | | the winding that gives the turn its direction; the auxiliary one | leads
    synchronous speed | | 120 times hertz over poles, in rev/min | test-run
    thermistor | | a sensor in the winding that jumps in ohms at its temperature | leads
    to do | | a verdict: not proven yet | release
    unproven | | no reading that decides has shown it | release
    waived | | a line a second person has lifted, with a reason | release
    watch | | a verdict: it may go, with eyes on it | release
    """
)
