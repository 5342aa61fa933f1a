"""Observations of the opened filter: its parts, the element, the media."""

from __future__ import annotations

from tabrel.core.catalogue.observation import Choice, Observation
from tabrel.core.catalogue.observed_outside import FEEL, SQUEEZE

_DAMAGE = (
    Choice("none", "sound"),
    Choice("by cutting", "bright, fresh edges near the cut: it says nothing of the part"),
    Choice("in service", "dull, worn or stained edges: it was so before the cut"),
)

INSIDE: tuple[Observation, ...] = (
    Observation(
        "can.damage",
        "damage",
        "opened",
        _DAMAGE,
        synonyms=("dent", "bulge", "crack"),
    ),
    Observation(
        "plate.fixing",
        "how it is fixed",
        "opened",
        (
            Choice("welded", "spots or a bead of weld to the cover"),
            Choice("glued", "a bead of resin"),
            Choice("folded tabs", "tabs or a rolled edge alone"),
        ),
        (
            "Any fixing that holds: the seam around it fails first.",
            "Welded: the plate cannot turn in the can.",
            "Folded: no heat near the gasket's groove.",
        ),
        synonyms=("weld", "spot welds"),
    ),
    Observation(
        "plate.play",
        "play in the can",
        "opened",
        (
            Choice("keyed", "a tab or a notch keeps it from turning"),
            Choice("tight", "it cannot be moved by hand"),
            Choice("rattles", "it can be turned or heard when shaken: the thread may let it turn as it is screwed home"),
        ),
        synonyms=("plate turns", "loose plate", "anti-rotation"),
    ),
    Observation("anti_drain.feel", "feel of the rubber", "opened", FEEL, synonyms=("hardness", "aged rubber")),
    Observation(
        "anti_drain.fit",
        "fit",
        "opened",
        (
            Choice("snug", "it sits without play on plate and core"),
            Choice("loose", "it can be turned or shifted by a finger"),
            Choice("creased", "a fold or a nick under the lip"),
        ),
        synonyms=("flapper fit", "membrane"),
    ),
    Observation(
        "bypass.location",
        "place",
        "opened",
        (
            Choice("at the dome end", "it senses the pressure at the far end, beyond the can annulus", "dome_end"),
            Choice("at the thread end", "it senses the element alone", "thread_end"),
            Choice("in the block", "it senses the whole filter; none is in the can", "block"),
            Choice("in the adapter", "it senses the whole filter; none is in the can", "adapter"),
            Choice("there is none", "no valve anywhere", "none"),
            Choice("in the housing", "a cartridge's housing holds it, and it senses the whole filter", "housing"),
        ),
        (
            "Thread end: what lies in the can is not washed past the valve.",
            "Dome end: the valve is simpler, and its spring also holds the element.",
        ),
        synonyms=("relief valve location", "where the bypass sits"),
        field=("bypass", "location"),
        closed=True,
    ),
    Observation(
        "bypass.kind",
        "construction",
        "opened",
        (
            Choice("coil spring", "a disc on a wound spring", "coil_spring"),
            Choice("leaf spring", "a disc or a dome under a bent blade", "leaf_spring"),
            Choice("flap", "a flap of rubber or steel that bends away", "flap"),
            Choice("combined", "one rubber part is bypass and anti-drainback valve", "combined"),
        ),
        (
            "Coil: its rate can be worked out and holds over the years.",
            "Leaf: it is enough, and leaves more room for the element.",
        ),
        synonyms=("bypass type", "relief valve type"),
        field=("bypass", "kind"),
    ),
    Observation(
        "bypass.spring_material",
        "spring wire",
        "opened",
        (
            Choice("music wire", "bright or oiled, magnetic", "music_wire"),
            Choice("stainless", "hardly magnetic", "stainless_302"),
            Choice("chrome silicon", "dark scale, magnetic", "chrome_silicon"),
        ),
        synonyms=("spring steel",),
        field=("bypass", "spring_material"),
        closed=True,
    ),
    Observation(
        "bypass.spring_ends",
        "spring ends",
        "opened",
        (
            Choice("open", "the wire runs on to its end: half a coil does not work", "open"),
            Choice("closed", "the last coil lies on its neighbour: two coils do not work", "closed"),
            Choice("closed and ground", "as closed, and flat: two coils do not work", "closed_ground"),
            Choice("cannot be told", "one to three coils may not work", "unknown"),
        ),
        synonyms=("dead coils", "squared ends"),
        field=("bypass", "spring_ends"),
        closed=True,
    ),
    Observation(
        "bypass.seat_mark",
        "mark of the seal",
        "opened",
        (
            Choice("on the inner edge", "the seal bears on the seat's inside diameter", "inner"),
            Choice("on the outer edge", "the seal bears on the seat's outside diameter", "outer"),
            Choice("none to be seen", "the pressure lies between those of both edges", "unknown"),
        ),
        synonyms=("seat edge", "seal ring mark"),
        field=("bypass", "seat_mark"),
        closed=True,
    ),
    Observation(
        "bypass.seal",
        "seal",
        "opened",
        (
            Choice("rubber", "a ring or a face of rubber on the seat"),
            Choice("metal on metal", "bare disc on bare seat: it seeps"),
            Choice("plastic", "a moulded disc or seat"),
        ),
        synonyms=("seat material",),
    ),
    Observation(
        "bypass.screen",
        "screen",
        "opened",
        (
            Choice("none", "what passes, passes"),
            Choice("mesh", "a mesh keeps the coarsest back while it is open"),
            Choice("perforated plate", "fine holes keep chips back while it is open"),
        ),
        synonyms=("bypass strainer",),
    ),
    Observation(
        "seating.kind",
        "construction",
        "opened",
        (
            Choice("coil spring", "a wound spring in the dome"),
            Choice("leaf spring", "a star or a bent blade in the dome"),
            Choice("none", "dimples or the cover hold the element"),
        ),
        (
            "Coil: its force stays the same as the element settles.",
            "Leaf: it guides the element on the whole rim.",
        ),
        synonyms=("hold-down", "element support"),
    ),
    Observation(
        "seating.washer",
        "washer under the spring",
        "opened",
        (
            Choice("none", "the spring bears on the end cap itself"),
            Choice("steel washer", "it spreads the force"),
            Choice("plastic washer", "it spreads the force, and yields when hot"),
        ),
        synonyms=("spring seat", "load plate"),
    ),
    Observation(
        "element.squeeze",
        "end caps squeezed by hand",
        "element",
        SQUEEZE,
        synonyms=("end cap stiffness", "rigidity"),
    ),
    Observation(
        "element.end_caps",
        "end caps",
        "element",
        (
            Choice("metal", "pressed sheet, potted"),
            Choice("fibre", "card, glued"),
            Choice("plastic", "moulded or welded on"),
            Choice("none", "the pleats end in resin or felt"),
        ),
        (
            "Metal: it seals against the seat and takes the spring.",
            "Fibre bonds as well: what counts is the glue.",
            "Plastic: it is welded all round.",
        ),
        synonyms=("end discs", "end plates"),
    ),
    Observation(
        "element.glue",
        "glue",
        "element",
        (
            Choice("even", "every pleat stands in it, all round"),
            Choice("in globs", "thick here and thin there: pleats are blocked"),
            Choice("missing", "pleats stand free at an end: an open way past the media"),
        ),
        synonyms=("potting", "adhesive"),
    ),
    Observation(
        "element.seam",
        "seam",
        "element",
        (
            Choice("clamped", "a metal strip is pressed over both ends"),
            Choice("glued", "both ends are glued together"),
            Choice("pressed", "both ends are pressed or welded together"),
        ),
        (
            "Clamped: it cannot come open in hot oil.",
            "Glued: it covers less of the media and leaves no edge.",
        ),
        synonyms=("crimp", "joint"),
    ),
    Observation(
        "element.spacing",
        "spacing of the pleats",
        "element",
        (
            Choice("even", "the gaps look alike all round"),
            Choice("bunched", "groups stand together"),
            Choice("touching", "neighbours touch over their depth"),
        ),
        synonyms=("pleat spacing", "crowding"),
    ),
    Observation(
        "element.spacer",
        "spacer",
        "element",
        (
            Choice("none", "the element fills the can"),
            Choice("plastic", "a moulded ring or foot"),
            Choice("steel", "a pressed cup or tube"),
        ),
        synonyms=("filler", "stand-off"),
    ),
    Observation(
        "element.damage",
        "damage",
        "element",
        _DAMAGE,
        synonyms=("collapse", "torn pleats"),
    ),
    Observation(
        "tube.material",
        "material",
        "element",
        (
            Choice("steel", "sheet"),
            Choice("plastic", "moulded"),
            Choice("none", "the pleats stand free, or the engine holds a core"),
        ),
        (
            "Steel: it holds up to a cold start behind a late bypass.",
            "Plastic: it has more open area and no burr.",
        ),
        synonyms=("core material",),
    ),
    Observation(
        "tube.form",
        "form",
        "element",
        (
            Choice("helical", "a strip wound and lock-seamed"),
            Choice("axial", "a sheet rolled, its edges hooked"),
            Choice("welded", "a sheet rolled, its edges welded"),
            Choice("moulded", "in one piece"),
        ),
        views=(
            "Wound: its lock-seam is a rib all along, and it stands up to a cold start.",
            "Rolled and welded: smooth inside, and no edge to file at the media.",
            "Moulded: more open area, and no burr.",
        ),
        synonyms=("spiral core", "core seam"),
    ),
    Observation(
        "tube.openings",
        "openings",
        "element",
        (
            Choice("holes", "punched"),
            Choice("louvres", "slits pressed open"),
            Choice("windows", "between ribs"),
        ),
        (
            "Holes: their area is counted and computed with.",
            "Louvres: no burr towards the media, if they are pressed the right way.",
            "The tube is never the restriction: its openings do not matter.",
        ),
        synonyms=("perforations",),
    ),
    Observation("tube.squeeze", "squeezed by hand", "element", SQUEEZE, synonyms=("core strength", "rigidity")),
    Observation(
        "tube.burr_side",
        "burr side",
        "element",
        (
            Choice("away from the media", "the burr points to the middle"),
            Choice("towards the media", "the burr files through the media behind it"),
            Choice("none", "no burr is felt on either side"),
        ),
        synonyms=("burrs", "sharp edges"),
    ),
    Observation(
        "media.family",
        "family",
        "media",
        (
            Choice("cellulose", "paper: tears with a fibrous edge, one colour through", "cellulose"),
            Choice("blend", "paper with glass or polyester: some fibres glint", "blend"),
            Choice("synthetic", "felt or glass layers: white, soft, seldom torn by hand", "synthetic"),
        ),
        (
            "Much media: a large area holds the dirt of a long interval and keeps the bypass shut when cold.",
            "Finer media: what is not caught at the first pass wears the engine; area is what is left to choose.",
            "Both by use: area for the cold and the interval, fineness for what the engine asks.",
        ),
        synonyms=("paper or synthetic", "fibre kind"),
        field=("media_family",),
        closed=True,
    ),
    Observation(
        "media.backing",
        "backing",
        "media",
        (
            Choice("none", "the media stands alone"),
            Choice("wire mesh", "woven wire on the outlet side"),
            Choice("polymer net", "an extruded net"),
        ),
        (
            "No mesh: more room in the pleats.",
            "Mesh: the pleats stay apart under cold oil.",
        ),
        synonyms=("mesh", "support net"),
    ),
    Observation(
        "media.look",
        "fibres under the microscope",
        "media",
        (
            Choice("coarse, uneven", "flat ribbons of many widths"),
            Choice("fine among coarse", "thin straight fibres between the ribbons"),
            Choice("fine, even", "round fibres of one width"),
            Choice("two layers", "a coarse side and a fine side"),
        ),
        synonyms=("fibre look", "micrograph"),
    ),
    Observation(
        "media.condition",
        "holes or wear",
        "media",
        (
            Choice("none", "held to the light it is whole"),
            Choice("by cutting", "a fresh nick near the cut"),
            Choice("worn at the tube", "polished or thin over the tube's edges"),
            Choice("holed", "light comes through"),
        ),
        synonyms=("pinholes", "wear", "damage"),
    ),
)
