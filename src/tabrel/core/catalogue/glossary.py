"""The glossary: every term of the field as it is used here, with its meaning, unit and standard.

It feeds the help on screen and `docs/glossary.md`; a test holds the page against it.
"""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class Term:
    """One term of the glossary.

    Attributes
    ----------
    term : str
        As it is written on screen.
    meaning : str
        One sentence.
    unit : str
        In which it is told; empty for a thing or a share.
    standard : str
        Where it is defined or tested; empty where there is none.
    """

    term: str
    meaning: str
    unit: str = ""
    standard: str = ""


GLOSSARY: tuple[Term, ...] = (
    Term(
        "absolute rating",
        "Size at which a maker claims nearly all particles are held, mostly 98 % or 99 %; no standard fixes which.",
        "µm(c)",
    ),
    Term("adapter", "Part between engine and filter that leads the oil through cross-holes and turns it."),
    Term(
        "anti-drainback valve",
        "Rubber disc under the inlet holes that keeps the filter full while the engine is stopped.",
        "",
        "",
    ),
    Term("assumed", "Provenance of a value that nobody measured or stated: a usual figure stands in, and every result names it."),
    Term(
        "bearing heating", "Share of the friction heat that stays in the bearings' oil: 0 constant, 1 no heat lost to the walls."
    ),
    Term("bearing temperature rise", "How much warmer the oil in the bearings is than in the sump, at the hot point.", "K"),
    Term("blank count", "Particles counted in the clean fluid, which the test did not bring in."),
    Term("burr", "Raised edge of a punched hole; towards the media it files through it."),
    Term("burst", "Failure of the can or its seam under internal pressure.", "kPa, psi", "ISO 4548-6"),
    Term("bypass fraction", "Share of the filter flow that passes the open bypass valve.", "%"),
    Term(
        "bypass onset",
        "Oil temperature at which the bypass valve first closes as the oil warms up; below it oil goes unfiltered.",
        "°C",
    ),
    Term(
        "bypass opening pressure",
        "Differential pressure at which the bypass valve begins to open, at 20 °C.",
        "kPa, psi",
        "ISO 4548-2",
    ),
    Term("bypass valve", "Valve that lets oil past the media when their differential pressure is too high: an emergency path."),
    Term("can annulus", "Ring-shaped channel between can and element, along which the oil reaches the far pleats.", "mm"),
    Term("centre tube", "Perforated tube that supports the element from inside."),
    Term("circumference", "Length around the can; divided by π it is the outside diameter.", "mm, in"),
    Term("clearance", "Half the difference between the can's inside and the element's outside diameter.", "mm, in"),
    Term("coil-bound", "A spring is coil-bound when its coils touch before the valve has reached its full lift."),
    Term("coincidence limit", "Particles in a volume beyond which a counter takes several for one.", "1/mL", "ISO 11171"),
    Term("collapse", "Failure of the element inwards under too high a differential pressure.", "kPa, psi", "ISO 4548-3"),
    Term(
        "dead coils",
        "End coils of a spring that do not act: half a coil of open ends, two of closed ones, 1 to 3 while not told.",
    ),
    Term("defects", "Ways past the media that are always open: worn media, an end without glue."),
    Term("differential pressure", "Pressure before a part less the pressure after it, Δp.", "kPa, psi", "ISO 4548-1"),
    Term("dirt capacity", "Mass of dirt held when the terminal loading is reached.", "g", "ISO 4548-12"),
    Term("discharge coefficient", "Share of the ideal flow that passes an opening."),
    Term("duty cycle", "Engine speed over time that a start or a life follows.", "rpm over s"),
    Term(
        "dynamic viscosity",
        "Resistance of the oil to shear: kinematic viscosity times density.",
        "mPa·s",
        "ASTM D445, D5293",
    ),
    Term(
        "effective media area",
        "One face of the media strip less seam overlap, potting and blocked pleats.",
        "cm², in²",
    ),
    Term("element", "Pleated media with its centre tube and end caps: the part of the filter that holds the dirt."),
    Term("end cap", "Disc of metal or fibre bonded to each end of the pleats; a poor bond lets oil pass unfiltered."),
    Term(
        "expanded uncertainty", "U: the half-width that holds the true value with 95 % probability.", "as the value", "JCGM 100"
    ),
    Term(
        "Eₙ",
        "Difference of two values over the expanded uncertainty of that difference; beyond 1 the two disagree.",
        "",
        "ISO/IEC 17043",
    ),
    Term("face velocity", "Flow rate over media area.", "m/s"),
    Term("filling", "The first seconds after a start: galleries empty, all the pump delivers passes the filter."),
    Term(
        "filtration ratio β", "Number of particles of a size and larger before the filter over that behind it.", "", "ISO 16889"
    ),
    Term("final oil temperature", "Temperature that the sump approaches in a start.", "°C"),
    Term("gauge tap", "Where the engine's oil pressure gauge is connected: before the filter it rises as the filter clogs."),
    Term("gross media area", "Length times width of the media strip, one face.", "cm², in²"),
    Term(
        "hot gallery pressure",
        "Pressure in the main gallery at a stated speed with hot oil; the engine is calibrated by it.",
        "kPa",
    ),
    Term("inlet hole area", "Sum over the inlet holes of count × area × open share.", "mm², in²"),
    Term("kinematic viscosity", "Resistance of the oil to flow under its own weight.", "mm²/s", "ASTM D445, D341"),
    Term("lift", "Distance by which a valve is open.", "mm"),
    Term("loading", "Factor by which dirt multiplies the resistance of the clean media."),
    Term("louvre", "Slot of a centre tube, pressed outwards from its sheet; a closed one narrows the flow."),
    Term(
        "low-shear cold viscosity",
        "Viscosity of cold oil near rest, up to twice that of the cold cranking test.",
        "mPa·s",
        "ASTM D4684",
    ),
    Term("media family", "Cellulose, blend or synthetic: gives usual figures for what was not measured."),
    Term("media permeability κ", "Darcy permeability: flow through a thickness at a pressure and a viscosity.", "m²"),
    Term(
        "micrometre µm(c)",
        "Particle size on the certified scale; older scales are converted, never in silence.",
        "µm(c)",
        "ISO 11171",
    ),
    Term("micron efficiency", "Share of particles of a size held back in one pass, E = 1 − 1/β.", "% at µm(c)", "ISO 4548-12"),
    Term(
        "multi-hole loss ratio",
        "Loss of the real holes over that of one round hole of the same area in the same plate.",
    ),
    Term(
        "multi-pass test",
        "Fluid circulates through the filter while dust is added; particles are counted on both sides.",
        "",
        "ISO 4548-12",
    ),
    Term(
        "nominal rating",
        "Size at which a maker claims that about half of the particles are held; no standard fixes the share.",
        "µm(c)",
    ),
    Term("original passage bore", "Bore of the stud that the adapter is screwed on.", "mm, in"),
    Term(
        "outlier",
        "Reading so far from the others as in 1 of 100 honest sets (modified z-score). It is marked, never dropped.",
        "",
        "",
    ),
    Term("pair wins", "Ranking method: in how many pairs a filter beats the other in more criteria than it loses."),
    Term("penetration", "Share of the particles of a size that pass the media, 1/β."),
    Term("pleat opening", "Open share of the circumference at the inside of the pleat pack.", "%"),
    Term("pleat pack", "Folded media with backing, seen end-on."),
    Term("potting", "Glue or plastic that seals the ends of the pleats; media in it does not filter.", "mm"),
    Term("pressure profile", "Pressure after each part on the way from pump to gallery.", "kPa, psi"),
    Term(
        "pressure-loss breakdown", "Each part's share of the loss from pump to gallery, viscous and inertial apart.", "kPa, psi"
    ),
    Term("provenance", "Where a value comes from: measured, derived, published, by eye or assumed."),
    Term(
        "pumpability limit",
        "Lowest temperature at which the oil still flows to the pump; below it nothing is computed.",
        "°C",
        "SAE J300",
    ),
    Term("rank sum", "Ranking method: sum of a filter's places in each criterion; low is good."),
    Term("reading", "One value as typed, with its unit, instrument and time; it can be set aside, never changed."),
    Term("regulator", "Valve that returns pump flow to the sump above its opening pressure."),
    Term("relief flow", "Share of the pump flow that the regulator returns to the sump.", "%"),
    Term("retained mass", "Dust injected less what still circulates.", "g", "ISO 4548-12"),
    Term("screening estimate", "Efficiency computed from fibre diameter, solidity and thickness: a band, never a rating.", "%"),
    Term("series equivalent", "One area with the inertial loss of all sections in series: 1/√Σ(1/A²).", "mm², in²"),
    Term("set aside", "A reading set aside no longer counts; it stays visible with the reason, and can be used again."),
    Term("shedding", "More particles come out of a filter than go in."),
    Term("slice", "A quantity along temperature or speed, all filters overlaid with their 95 % bands."),
    Term("solidity", "Share of the media's volume that is fibre.", ""),
    Term("steady", "Galleries full: pump, regulator, filter and engine in balance."),
    Term("stud bore", "Inside diameter of the engine's hollow stud, through which the filtered oil leaves.", "mm, in"),
    Term("system efficiency", "Share of flow through the media times the media's efficiency at a size.", "%"),
    Term("tapping plate", "Thick plate that closes the can, with the thread and the inlet holes."),
    Term("tapping plate flow area", "The smallest of the sections that the oil passes in series at the plate.", "mm², in²"),
    Term("terminal loading", "Loading at which the filter counts as spent."),
    Term("tied", "Filters whose order could change within the uncertainty of what is known of them."),
    Term("unfiltered share", "Share of the filter flow that passes bypass valve and defects.", "%"),
    Term("warm-up time constant", "Time in which the sump covers 63 % of its temperature rise.", "min"),
    Term("weighted score", "Ranking method: weighted mean of shares between stated end points, 0 to 100."),
)
"""In alphabetical order."""
