"""Observations on the outside of a filter, before it is cut."""

from __future__ import annotations

from tabrel.core.catalogue.observation import Choice, Observation

FEEL = (
    Choice("soft", "a finger nail leaves no mark, it yields at once"),
    Choice("pliable", "it bends double and comes back"),
    Choice("hardened", "it bends little, and comes back slowly"),
    Choice("brittle", "it cracks when it is bent: it has aged"),
)
SQUEEZE = (
    Choice("holds", "by hand it does not move"),
    Choice("gives", "it moves and comes back"),
    Choice("collapses", "it stays pressed in"),
)

OUTSIDE: tuple[Observation, ...] = (
    Observation(
        "can.delivered",
        "condition as delivered",
        "outside",
        (
            Choice("sound", "nothing to find fault with"),
            Choice("dents", "pressed in somewhere: on the dome, at the seam"),
            Choice("rust", "on the can, the plate or the threads"),
            Choice("stray glue", "where it can come off into the oil"),
            Choice("loose chips", "metal or plastic shaken out, or seen inside"),
            Choice("open box", "the box or the film was open: it may have been handled"),
        ),
        whole_only=True,
        several=True,
        synonyms=("dent", "damage in transit", "as received", "corrosion", "swarf"),
    ),
    Observation(
        "can.squeeze",
        "squeezed by hand",
        "outside",
        SQUEEZE,
        (
            "A thick wall: it takes the wrench and the pressure peaks of a cold start.",
            "The wall says little: the seam and the plate fail first.",
        ),
        whole_only=True,
        synonyms=("rigidity", "stiffness", "flexes"),
    ),
    Observation(
        "can.grip",
        "grip",
        "outside",
        (
            Choice("plain", "smooth all round: a strap or a claw is needed"),
            Choice("fluted", "flats at the dome that a cap wrench takes"),
            Choice("coated", "a rough coat that a dry glove holds"),
        ),
        synonyms=("wrench flats", "knurl", "texture"),
    ),
    Observation(
        "can.picture_on_box",
        "picture on the box",
        "outside",
        (
            Choice("same part", "what the box shows is what was in it"),
            Choice("another part", "the picture shows another part: measure this one, and say so"),
            Choice("no picture", "there is none to check against"),
        ),
        whole_only=True,
        synonyms=("box art", "label picture"),
    ),
    Observation(
        "gasket.section",
        "section",
        "outside",
        (
            Choice("square", "a plain ring, held by its fit in the groove"),
            Choice("captured lip", "the groove's edge is rolled over a lip of the ring"),
            Choice("rounded", "a ring of round section"),
        ),
        (
            "Captured: it stays on the plate, so that an old one is seldom left on the engine.",
            "Square: it turns freely as the filter is screwed home, and is easily replaced.",
        ),
        synonyms=("seal shape", "o-ring"),
    ),
    Observation(
        "gasket.rubber",
        "rubber",
        "outside",
        (
            Choice("nitrile", "black, firm, marks grey when rubbed"),
            Choice("silicone", "often coloured, soft, springs back at once"),
            Choice("acrylic", "firm and glossy, for hot engines"),
        ),
        (
            "By interval: silicone for long intervals and cold, nitrile is enough for short ones.",
            "Silicone always: it keeps its shape when hot and when cold.",
            "Nitrile always: it is tougher where the ring slides on the engine.",
        ),
        synonyms=("seal material", "elastomer"),
    ),
    Observation("gasket.feel", "feel of the rubber", "outside", FEEL, synonyms=("hardness", "aged rubber", "durometer")),
    Observation(
        "gasket.fit",
        "fit",
        "outside",
        (
            Choice("snug", "it sits all round and does not turn by itself"),
            Choice("loose", "it can be shifted by a finger"),
            Choice("stretched", "it is pulled over its groove, or stands out of it"),
        ),
        synonyms=("seal fit", "groove"),
    ),
    Observation(
        "gasket.pull_out",
        "pull-out effort",
        "outside",
        (
            Choice("falls out", "it drops when the filter is turned over"),
            Choice("by finger", "a finger lifts it"),
            Choice("needs a tool", "a pick is needed"),
        ),
        whole_only=True,
        synonyms=("gasket retention",),
    ),
    Observation(
        "thread.cut_quality",
        "cut quality",
        "outside",
        (
            Choice("clean", "full bright flanks, no chips"),
            Choice("burred", "chips or torn crests on the first turns"),
            Choice("shallow", "crests are flat: the hole was drilled too wide"),
        ),
        whole_only=True,
        synonyms=("thread finish", "burrs"),
    ),
    Observation(
        "anti_drain.material",
        "rubber",
        "outside",
        (
            Choice("silicone", "often coloured, soft, keeps its shape"),
            Choice("nitrile", "black and firm"),
            Choice("thermoplastic", "hard, cast with ribs"),
        ),
        (
            "By interval: silicone for long intervals and hot engines, nitrile is enough for short ones.",
            "Silicone always: it still seals after a winter.",
            "Nitrile always: fit matters more than the rubber.",
        ),
        synonyms=("flapper material", "ADBV material"),
    ),
    Observation(
        "anti_drain.hole_cover",
        "cover of the holes",
        "outside",
        (
            Choice("covers all", "every hole is covered with the lip flat"),
            Choice("covers some", "part of a hole shows past the lip"),
            Choice("stands off", "the lip does not touch the plate"),
        ),
        whole_only=True,
        synonyms=("flapper fit", "valve seen through the holes"),
    ),
    Observation(
        "anti_drain.memory",
        "shape memory",
        "outside",
        (
            Choice("springs back", "it closes as soon as it is let go"),
            Choice("creeps back", "it takes seconds"),
            Choice("stays open", "it keeps the shape it was pressed to"),
        ),
        whole_only=True,
        synonyms=("flapper set",),
    ),
    Observation(
        "tube.seen",
        "core seen down the centre",
        "outside",
        (
            Choice("steel, round holes", "a rolled sheet with punched holes"),
            Choice("steel, louvres", "a rolled sheet with slits pressed open"),
            Choice("plastic cage", "moulded ribs"),
            Choice("none", "the pleats stand free"),
        ),
        (
            "Steel: it holds up to a cold start behind a late bypass.",
            "Plastic: it has more open area and no burr, and is strong enough.",
        ),
        synonyms=("centre tube", "core type"),
    ),
    Observation(
        "bypass.seen",
        "bypass valve seen",
        "outside",
        (
            Choice("at the thread end", "its disc is seen just behind the thread"),
            Choice("at the dome end", "its disc is seen at the far end of the core"),
            Choice("not seen", "nothing is seen: it may sit in the engine"),
        ),
        (
            "Thread end: what lies in the can is not washed past the valve.",
            "Dome end: the valve is simpler, and its spring also holds the element.",
        ),
        synonyms=("relief valve location",),
    ),
)
