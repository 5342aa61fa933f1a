"""What each property of the interface means, with an example; its unit is the end of its name.

One row a name: the same name means the same everywhere. A name that does not has a row for its model, as in ``Model.name``.
"""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from tabrel.api.count_words import COUNT_PROPERTIES
from tabrel.api.report_words import REPORT_PROPERTIES
from tabrel.api.use_words import USE_PROPERTIES

UNITS_BY_END = {
    "kpa": "kPa", "mpa": "MPa", "mm": "mm", "mm2": "mm²", "cm2": "cm²", "m2": "m²", "um": "µm", "um2": "µm²",
    "um_c": "µm(c)", "c": "°C", "rpm": "rpm", "l_min": "L/min", "percent": "%", "s": "s", "hours": "h",
    "minutes": "min", "g": "g", "grams": "g", "g_m2": "g/m²", "mpa_s": "mPa·s", "mm2_s": "mm²/s", "kg_m3": "kg/m³",
    "k": "K", "l": "L", "deg": "°",
}  # fmt: skip
"""Unit by the end of a name."""
_ENDS = sorted(UNITS_BY_END, key=len, reverse=True)

_OWN_SUBJECTS = COUNT_PROPERTIES | USE_PROPERTIES | REPORT_PROPERTIES
PROPERTIES: dict[str, tuple[str, Any]] = _OWN_SUBJECTS | {
    # what a filter does whatever it is used for
    "coldest_pumping_c": ("Lowest temperature at which the oil pumps.", -32.5),
    "element_greatest_kpa": ("Greatest differential pressure of the element over the whole map.", 84.0),
    "element_greatest_stuck_kpa": ("The same with the bypass valve stuck shut.", 212.0),
    # copies of the database
    "database": ("Where the database is on this machine.", "/home/ann/data/tabrel.db"),
    "folder": ("Where its copies are kept.", "/home/ann/data/backups"),
    "kept": ("So many of the copies made by themselves are kept.", 10),
    "bytes": ("Size of the file.", 2400000),
    "bytes_free": ("Room that is left where the copies are kept.", 52000000000),
    "copies": ("Copies, newest first.", []),
    "copy_name": ("Name of a copy; none means the database itself.", "tabrel-2026-11-20-091200-asked.db"),
    "occasion": ("What it was made for.", "daily"),
    "made": ("When it was made, ISO time.", "2026-11-20T09:12:00+00:00"),
    "changes_missing": ("How many changes were made since; null where that cannot be told.", 4),
    "last_missing": ("The last of these changes, newest first.", ["height 98.4 mm"]),
    "studies_missing": ("Names of studies that are not in it.", []),
    "days": ("Days on which something was entered, oldest first.", []),
    "day": ("ISO date.", "2026-11-20"),
    "said": ("What has to be known of it, one sentence; mostly empty.", ""),
    "faults": ("What is wrong, each one sentence.", []),
    "DayOut.changes": ("How many changes were made on it.", 212),
    "VerificationOut.studies": ("How many studies are in it.", 4),
    "VerificationOut.samples": ("How many samples are in it.", 31),
    "VerificationOut.readings": ("How many readings are in it.", 1200),
    "VerificationOut.changes": ("How many changes are recorded in it.", 2100),
    # what many share
    "key": ("Reading key, or key of a detail, an observation or a quantity, as the catalogue has it.", "can.height"),
    "name": ("Name, as a person gave it or as the catalogue has it.", "thin oil"),
    "title": ("What a person calls it.", "Height"),
    "words": ("The same in a few words.", "8 round, 5.6 mm"),
    "text": ("As typed, with its unit where it has one.", "98.4 mm"),
    "value": ("Best estimate; null where it is not known.", 146.2),
    "metric": ("In metric units, as shown.", "98.4 mm"),
    "inch": ("In inch units, as shown.", "3.874 in"),
    "id": ("Number of the row, for addresses.", 1),
    "kind": ("Of which kind it is.", "words"),
    "missing": ("Keys of the inputs it needs and has not.", ["media.thickness"]),
    "seen": ("When it was read there, ISO date.", "2026-10-02"),
    "scenario": ("What if: what is otherwise than in the study; null for the study as it is.", None),
    "provenance": ("Where the number comes from; null for measured.", "published"),
    "count": ("How many.", 8),
    "copied": (
        "What of the sample is copied and not confirmed: facts, groups of holes, claims; from what.",
        {"details/sample.maker": "Korvath"},
    ),
    "copied_from": ("Label of the sample, or name of the template, it was copied from and not yet confirmed.", "Korvath"),
    "parts_to_copy": ("What another sample can be begun with, in the order it is offered.", []),
    "holds": ("What is in it, in a few words.", "gasket and thread"),
    "is_usual": ("Whether it is chosen unless said otherwise.", True),
    "without_gone": ("Whether what the program no longer knows is left out.", False),
    "gone": ("Keys in it that the program no longer knows.", []),
    "saved_at": ("When it was saved, ISO time, UTC.", "2026-11-20T09:12:00Z"),
    "replace": ("Whether one of the same name is replaced.", False),
    "things": ("What is confirmed: facts as in `revisions`, or rows.", ["details/sample.maker", "readings/12"]),
    "label": ("Label of the sample.", "Korvath"),
    "low": ("Lower end of the 95 % interval.", 130.0),
    "high": ("Upper end of the 95 % interval.", 162.0),
    "unit": ("Unit of the numbers beside it.", "kPa"),
    "parts": ("Parts, in the order of the work.", []),
    "stage": ("Station of the work at which it is taken.", "outside"),
    "basis": ("From what it was computed.", "spring"),
    "condition": ("Steady, or filling after a start.", "steady"),
    "source": ("Where it was read, or what it comes from.", "box"),
    "problem": ("Why there is nothing, in one sentence; null where there is.", None),
    "note": ("What was noted beside it.", "beside the seam"),
    "family": ("Unit family in which a bare number is meant.", "metric"),
    "synonyms": ("Other words for it, which the command box finds.", ["base plate"]),
    "assumed": ("What is assumed because nobody stated it.", ["plan.start_c"]),
    "part": ("Part of the filter or of the circuit it belongs to.", "can"),
    "instrument": ("With what it was read; null for the usual one.", "caliper"),
    "state": ("Why there is no value; null removes the reason.", "lost"),
    "message": ("One sentence that says what is wrong and how to correct it.", "there is nothing here"),
    "viscosity": ("Points of the oil's viscosity line.", [{"temperature_c": 40, "kinematic_mm2_s": 66}]),
    "points_mm": ("Points of an outline, x and y in mm.", [[0, 0], [4, 0], [4, 3.5]]),
    "metric_uncertainty": ("Its uncertainty in metric units, as shown.", "0.053 mm"),
    "inch_uncertainty": ("Its uncertainty in inch units, as shown.", "0.0021 in"),
    "details": ("Details by key, as text.", {"sample.maker": "Korvath"}),
    "speaker": ("Who claims it.", "maker"),
    "relation": ("How the number is claimed; = where nothing is said.", ">="),
    "rule": ("Name of the rule.", "Korvath cans"),
    "rules": ("All rules.", []),
    "pattern": ("What of a date stands where, in braces.", "{Y}{DDD}"),
    "iso": ("Date in ISO form, as far as it is known.", "2026-08-14"),
    "decade_before": ("The same ten years before, where the code cannot tell; null where it can.", "2016-08-13"),
    "DateCodeOut.code": ("As stamped.", "6 226"),
    "says": ("What is to be looked at; null where nothing is.", None),
    "date_tokens": ("What stands for a part of a date in a pattern, and what it means.", {"{Y}": "the last figure of the year"}),
    "offers": ("What shops ask for the part.", []),
    "shop": ("Who offers it.", "Corner Parts"),
    "price": ("Of the pack, with its currency.", "9.50 EUR"),
    "OfferIn.pack_of": ("How many pieces are in a pack, as typed; empty for one.", "10"),
    "pack_of": ("How many pieces are in a pack.", 10),
    "delivery": ("Of one pack, in the currency of the price; null where it is not stated.", "4.90 EUR"),
    "each": ("Cost of one piece where one pack is ordered.", "14.40 EUR"),
    "each_amount": ("The same as a number, in the currency.", 14.4),
    "currency": ("Currency of the price.", "EUR"),
    "several": ("Whether more than one choice may hold.", False),
    "status": ("Whether it is in use, archived or deleted.", "in_use"),
    "changed_at": ("When something of it was changed last, ISO time, UTC.", "2026-11-20T09:12:00Z"),
    "SampleSummaryOut.needs": ("What the map of the filter alone still needs, in words.", ["the opening pressure"]),
    "copied_count": ("How many things are copied and not confirmed.", 0),
    "warning_count": ("How many warnings there are.", 0),
    "template_id": ("Number of the template.", 1),
    "sample_id": ("Number of the sample.", 1),
    "at": ("Where the slice is taken, in °C or rpm.", -20),
    "measured": ("How many inputs, or which, were measured.", 5),
    "whole_only": ("Whether it can be read only before the filter is cut open.", True),
    "question": ("What is asked back about it; null where nothing is.", None),
    "estimate": ("The estimate from the readings in use; null without any.", None),
    "inputs": ("Inputs a number rests on.", []),
    "points": ("Points, in order.", []),
    "rows": ("Rows, in order.", []),
    "high_shear": ("Whether the viscosity is one at high shear.", False),
    "bypass_location": ("Where the bypass valve lies.", "dome_end"),
    "first": ("Key of the one.", "W"),
    "second": ("Key of the other.", "L"),
    "results": ("Results of the sample by key.", {}),
    "warnings": ("What is implausible.", []),
    "observations": ("What is seen rather than measured.", []),
    "meaning": ("What it means, in a sentence.", "A length along the can."),
    "verdict": ("What the bench says of it.", "confirmed"),
    "reason": ("Why, in a few words.", "wet"),
    "is_used": ("Whether it is used, or only shown.", True),
    "duty_cycle": ("Name of the duty cycle.", "mountain road"),
    "method": ("How the filter was cut open.", "lathe"),
    "choices": ("What can be chosen.", ["clean", "burred"]),
    "correction": ("What was likely meant, as it would be typed; null where nothing is offered.", "6.4 mm"),
    "claims": ("Claims made for the sample.", []),
    "used": ("Whether it is in use.", True),
    "kpa": ("Pressure.", 23.0),
    "confirmed": ("Whether the analyst confirmed it after it was questioned.", False),
    "efficiency": ("Efficiency over particle size.", None),
    "section": ("The filter in section.", None),
    "onset": ("Bypass onset over engine speed.", None),
    "standard_uncertainty": ("Standard uncertainty u, in the unit of the value.", 0.053),
    "expanded_uncertainty": ("Expanded uncertainty U at 95 %, in the unit of the value.", 0.11),
    "controlled_by": ("What controls the flow area.", "outlet_bore"),
    "shape": ("Shape of the holes.", "round"),
    "placement": ("Where the holes are.", "inlet"),
    "position": ("Its place among others, from 0.", 0),
    "is_dynamic": ("Whether the viscosity is dynamic, in mPa·s; else kinematic, in mm²/s.", False),
    "regulator": ("State of the regulator.", "works"),
    "left_out": ("What the computation leaves out.", []),
    "problems": ("What could not be computed, by label.", []),
    "where": ("Place it is about: a key, or a path in the document; empty for the whole.", "samples[0].label"),
    "quantity": ("Quantity of the map.", "element_pressure"),
    "symbol": ("Symbol of the unit, or of the number in a formula.", "kPa"),
    "along": ("Over what the slice runs, or the values it runs over.", "temperature"),
    "detail": ("One sentence that says what is wrong and how to correct it.", "there is nothing here"),
    "type": ("Kind of problem; about:blank for what its status says.", "about:blank"),
    "ProblemOut.status": ("HTTP status.", 422),
    "warning": ("Why nothing can be changed; empty where it can.", ""),
    "change_id": ("Number of the change as it was seen; null where none was.", 12),
    "is_own": ("Whether it was made in the window that asks, or stated for this study.", True),
    "of_another_window": ("Whether a change that another window made may be moved.", False),
    # two filters as parts
    "labels": ("Labels of the samples, in their order.", ["Korvath", "Dunmor"]),
    "enough_same": ("So many findings must be the same before nothing is said to tell two parts apart.", 8),
    "pairs": ("Every pair of filters.", []),
    "first_label": ("Label of the first of two filters.", "Korvath"),
    "second_label": ("Label of the second one.", "Dunmor"),
    "part_verdict": ("Whether the two are the same part.", "nothing_tells_them_apart"),
    "is_one_part_number": ("Whether both carry one part number of one maker: a difference is one between lots.", False),
    "not_looked_at": ("Of media, pleats, tube and valve those of which nothing was found the same.", ["valve"]),
    "findings": ("Dimensions and attributes, those that tell the two apart first.", []),
    "finding": ("Whether it is the same on both, different, or cannot tell.", "same"),
    "of_first": ("Of the first filter; null where it was not looked at.", {"metric": "98.4 mm", "inch": "3.874 in"}),
    "of_second": ("Of the second filter; null where it was not looked at.", {"metric": "98.5 mm", "inch": "3.878 in"}),
    "difference_percent": ("By how many per cent the second one is larger; null for words.", 0.1),
    "difference_in_rooms": ("The difference over what two of one kind may be found apart; beyond ±1 they differ.", 0.08),
    # comparison, uncertainty, sensitivity
    "normalised_error": ("Difference over its expanded uncertainty; beyond 1 the two disagree.", 0.4),
    "agrees": ("Whether two ways to a number agree within their uncertainty.", True),
    "is_factor": ("Whether it is spread as a factor, else over a range.", True),
    "contributions": ("Contributions to u², the largest first.", []),
    "covariances": ("Numbers of the last line that vary together.", []),
    "correlation": ("Correlation of the two.", 0.3),
    "smaller": ("What would make the contribution smaller.", "read it more often"),
    "factor": ("Factor from SI to the unit shown.", 0.001),
    "middle": ("Median of the draws.", [81.2]),
    "draws": ("Draws of the Monte Carlo.", 1000),
    "impossible": ("Draws that make no filter.", 0),
    "terms": ("Terms of the sum, or words by key.", []),
    "budget": ("Uncertainty budget of the result; null where it has none.", None),
    "without_budget": ("Why there is no budget; empty where there is one.", ""),
    "low_at_20_percent": ("Lower end at 20 µm(c).", 40.0),
    "high_at_20_percent": ("Upper end at 20 µm(c).", 99.5),
    "guessed": ("Whether it is only guessed.", True),
    "assumptions": ("What the model assumes, by key.", []),
    "input_counts": ("How many inputs of a result have which provenance.", {"inlet_hole_area": {"measured": 2}}),
    # catalogue
    "stages": ("Titles of the stations by key.", {"outside": "Outside"}),
    "quantities": ("What can be measured.", []),
    "input_fields": ("Field in which an input is typed, by its key.", {}),
    "units": ("Units, with factors to SI.", []),
    "claimable_results": ("Results on which a claim can be checked.", ["bypass_opening_kpa"]),
    "map_quantities": ("Quantities of the map.", []),
    "circuit_parts": ("Parts of the oil circuit.", []),
    "map_needs": ("Details a map needs.", ["engine.gallery"]),
    "engine_side": ("Inputs that belong to the engine, not the filter.", ["circuit.stud"]),
    "cut_methods": ("Ways to cut a filter open, with what each does.", {"lathe": "leaves the element whole"}),
    "cautions": ("What to take care of before cutting.", ["Drain the filter first."]),
    "short_sheet": ("The fewest readings for the results and the map of the filter alone, in the order of the hands.", []),
    "oil_grades": ("Grades whose typical oil can be taken.", ["5W-30"]),
    "needs": ("What the maps still need, told as choices.", None),
    "how": ("How it is taken, in a few words.", "a bench reading of it"),
    "instead": ("Other ways to the same.", []),
    "without": ("What is left out without it; empty where it is needed.", ""),
    "entries": ("How many times something is to be typed or chosen.", 1),
    "left": ("Those of them that are still empty.", ["media.thickness"]),
    "filter_alone": ("What the map of the filter alone needs.", []),
    "map": ("What the map in the engine needs.", []),
    "study_bytes": ("Largest study document that is imported, in bytes.", 32_000_000),
    "count_table_bytes": ("Largest file with particle counts that is read, in bytes.", 5_000_000),
    "duty_cycle_bytes": ("Largest file with a duty cycle that is read, in bytes.", 20_000_000),
    "glossary": ("Terms with meaning, unit and standard.", []),
    "in_drawing": ("Details shown in the drawing.", ["engine.gallery"]),
    "help": ("What to type, shown while typing; null where it is plain.", "per revolution of the engine"),
    "usual": ("What is assumed where nothing is stated, in metric units; null where nothing is.", "4 mm"),
    "usual_inch": ("The same in inch units.", "0.1575 in"),
    "metric_unit": ("Unit in the metric family.", "mm"),
    "inch_unit": ("Unit in the inch family.", "in"),
    "instruments": ("Instruments that measure it.", ["caliper"]),
    "counted": ("Whether it is a number of things.", False),
    "drawing": ("Name of its drawing; null without one.", "height"),
    "schools": ("Views of the schools on what is seen.", ["Some take it for a sign of heat."]),
    "closed": ("Whether only the choices can be taken.", False),
    "term": ("Term.", "bypass onset"),
    "standard": ("Standard it is defined in, or claimed by; empty or null without one.", "ISO 4548-12"),
    "dimensions": ("Dimension lines to draw.", []),
    "is_headline": ("Whether it is on the results tape.", True),
    "is_logarithmic": ("Whether it is drawn on a logarithmic scale.", True),
    "of_filter_alone": ("Whether the filter alone has it.", True),
    "title_in_slice": ("What it is called beside a slice.", "element Δp"),
    "grid": ("Key of its grid in the map.", "element_kpa"),
    # the bench
    "cut": ("How and when the filter was cut open; null while it is whole.", None),
    "wording": ("As printed or said.", "99 % at 20 µm(c)"),
    "stale": ("Why the claim no longer holds; null while it does.", None),
    "is_typed": ("Whether it was typed, and not only assumed or taken along.", True),
    "origin": ("What it was taken from, such as the library; null where it was typed.", "library"),
    "confirm": ("Whether a questioned value is meant as typed.", False),
    "taken_at": ("When it was taken, ISO time in UTC; null where it is not known.", "2026-11-02T08:00:00.000Z"),
    "set_aside_reason": ("Why it is set aside; null while it is in use.", None),
    "outlier": ("Whether it lies far from the others.", False),
    "bound": ("The bound, where only that is known; null where the value is.", None),
    "reading_id": ("Number of the reading; null where it is about none.", 7),
    "readings": ("Readings as taken, those set aside too.", []),
    "metric_value": ("Mean in metric units.", 98.45),
    "metric_expanded": ("Expanded uncertainty in metric units.", 0.11),
    "inch_value": ("Mean in inch units.", 3.876),
    "inch_expanded": ("Expanded uncertainty in inch units.", 0.0042),
    "fields": ("Fields of the part.", []),
    "hole_group": ("The group of holes of the part; null for other parts.", None),
    "group": ("Which group of holes it belongs to, from 0.", 0),
    "wrong": ("Whether something in it is wrong.", False),
    "detail_numbers": ("Numbers of the details by key, in both families.", {}),
    "detail_questions": ("What is asked back about details, by key.", {}),
    "contradictions": ("Sources that contradict each other, in sentences.", []),
    "shelf": ("How long the filter lay on a shelf, in words; null where it is not known.", "5.4 years on the shelf"),
    "plate": ("The tapping plate as measured.", None),
    "before_cut": ("What is missing before the cut, and the cut.", None),
    "analysis": ("Results and warnings.", None),
    "undo": ("What undo would take back; null where there is nothing.", None),
    "redo": ("What redo would repeat; null where there is nothing.", None),
    "undone": ("Whether it was undone.", False),
    "place": ("Key of the field at which it was done.", "can.height"),
    "sheet": ("The whole bench sheet, where the window named no revision that is remembered; else null.", None),
    "changes": (
        "What of the sheet is no longer as the window has it; null where the whole sheet comes, or the sample is gone.",
        None,
    ),
    "figures": ("Figures of the opened filter; null where they were not asked for.", None),
    "study": ("The study as the rack shows it, where the change touched that; else null.", None),
    "revision": ("How often the study was changed, undone and redone when it changed last.", 17),
    "revisions": (
        "Revision of everything that was changed, by details/KEY, observations/KEY, states/KEY, oil, cut, readings/ID, holes/ID "
        "and claims/ID; 0 where it is not there.",
        {"details/sample.maker": 17},
    ),
    "oil_revision": ("Revision of the viscosity points, to be named when they are changed.", 17),
    "hole_group_id": ("Group of holes that the place of the key showed; another one there is refused. Null: not a hole.", None),
    "code": ("Key of the warning.", "pack_cannot_fit"),
    "is_reference": ("Whether others are compared with it.", False),
    "maker": ("Maker, as printed.", "Korvath"),
    "part_number": ("Part number, as printed.", "KV 212 W"),
    "samples": ("Samples of the study, in their order.", []),
    "study_id": ("Number of the study.", 1),
    "oil_name": ("Name of the study's oil; null without one.", "5W-30"),
    "circuit_name": ("Name of the study's engine; null without one.", "service diesel, 2.2 L"),
    "created_at": ("When it was made, ISO time in UTC.", "2026-11-02T08:00:00.000Z"),
    "sample_count": ("How many samples.", 5),
    "cut_count": ("How many of them are cut open.", 4),
    "reading_count": ("How many readings in use.", 301),
    # figures
    "valve": ("The bypass valve to scale.", None),
    "tray": ("The parts on the scale.", None),
    "pack": ("The pleat pack from above.", None),
    "pleat_curve": ("Loss over the number of pleats.", None),
    "strip": ("The strip of media unrolled.", None),
    "one_mm2": ("Area of one hole.", 28.9),
    "open_fraction": ("Share of it that is open.", 0.7),
    "adapter_ratio": ("Area of the adapter's cross-holes over that of the original passage.", 1.1),
    "room": ("Room of the pleats at the inside, in words.", "room for 90"),
    "circles": ("Circles of the plate.", []),
    "holes": ("Holes to draw, or their areas.", []),
    "hole_circles_measured": ("Whether the circles of the holes were measured.", True),
    "products": ("The arithmetic of the areas, as shown.", ["8 × 28.91 = 231.2 mm²"]),
    "loss_ratio_viscous": ("Loss against one round hole of the same area, cold.", 4.04),
    "loss_ratio_hot": ("The same at the hot point.", 0.909),
    "sections": ("Sections at the plate.", []),
    "outlets": ("Outlets with their bores.", []),
    "counts": ("Numbers of pleats.", [40, 50]),
    "media": ("Loss of the media.", [1.0]),
    "channels": ("Loss of the channels between the pleats.", [0.1]),
    "optimum": ("Number of pleats of the least loss.", 72),
    "least_loss": ("The loss there, relative to now.", 0.9),
    "largest_count": ("Most pleats that have room.", 90),
    "is_forecast": ("Whether it is forecast from outside, before the cut.", False),
    "evidence": ("What is set beside the result.", []),
    "agreements": ("Ways to one number set beside each other.", []),
    "stated_band": ("Stated setting against what was found; null without one.", None),
    "senses": ("What the valve senses, in a sentence.", "It senses the differential pressure of the element."),
    "lift_is_assumed": ("Whether the lift is assumed.", False),
    "sizes": ("Sizes to draw the valve with; null where one is missing.", None),
    "coil_bound": ("Whether the spring is solid before the valve is open.", False),
    "curves": ("Curves to draw.", []),
    "form": ("Form of the spring.", "coil"),
    "coils": ("Coils of the spring.", 6.5),
    "is_typical": ("Whether a size is only typical, to draw with.", False),
    "opens_at_low": ("Whether the valve opens at the low end of the stated band.", None),
    "full_open_at_high": ("Whether it is full open at the high end; null without one.", None),
    "within_tolerance": ("Whether it lies within the tolerance.", True),
    "closes": ("Whether the balance closes within its uncertainty.", True),
    "shell_ratio": ("Can mass computed from its sizes over that weighed.", 0.99),
    "steps": ("Lines of the working.", []),
    "formula": ("The line in symbols.", "A = l·w"),
    "pieces": ("The line in numbers, piece by piece.", []),
    "ways": ("Ways to the opening pressure.", []),
    "has_can": ("Whether the can was measured.", True),
    "has_valve": ("Whether the filter has a bypass valve.", True),
    "deductions": ("What is taken off the area.", []),
    "valid_to_um_c": ("Largest size the estimate holds for.", 30.0),
    "estimate_is_used": ("Whether the screening estimate is the result.", True),
    "why_not": ("Why it is not drawn, in a sentence.", "its size is not named"),
    "material": ("Material.", "cellulose"),
    "permeability_basis": ("From what the permeability was taken.", "air_drop"),
    "permeability_factor": ("Factor within which the permeability is known.", 1.3),
    # oil, engine, maps, starts
    "keep": ("Keys of the lines that stay as they are.", ["engine.name"]),
    "now_metric": ("What stands there now, in metric units; null for nothing.", "13.5 mm"),
    "now_inch": ("The same in inch units.", "0.5315 in"),
    "now_typed": ("The same as it was typed; null where it was not.", "13,5 mm"),
    "then_metric": ("What the library has, in metric units.", "13 mm"),
    "then_inch": ("The same in inch units.", "0.5118 in"),
    "lines": ("Lines, in order.", []),
    "line": ("One line of the answer.", None),
    "oil": ("The oil's line; null without an oil.", None),
    "grades": ("Typical grades to begin with.", ["5W-30"]),
    "grade": ("Typical grade; null to set points.", "5W-30"),
    "hot_point": ("Balance at the hot point; null where it cannot be made.", None),
    "library": ("Engines of the library.", []),
    "moved": ("A point that is being dragged; null for none.", None),
    "index": ("Which point, from 0.", 1),
    "stated": ("Viscosity as stated, in its own unit.", 66.0),
    "typed_temperature": ("Temperature as typed; null where it was not.", "40 °C"),
    "typed_viscosity": ("Viscosity as typed; null where it was not.", "66"),
    "temperature": ("Temperature as typed.", "40"),
    "studs": ("Loss of each stud.", []),
    "bypass_fraction": ("Share of the filter flow that passes the bypass, by temperature and speed.", [[0.0]]),
    "defect_fraction": ("Share that passes defects.", [[0.0]]),
    "regulator_fraction": ("Share of the pump's flow that the regulator relieves.", [[0.0]]),
    "evaluations": ("Evaluations of the residual that the solution took.", 11),
    "loss_breakdown": ("Loss by part at each point.", []),
    "gauge": ("Where the gauge taps the circuit.", "filter_inlet"),
    "loading": ("Factor on the media's resistance; 1 for a clean filter.", 3.0),
    "oil_grade": ("Another oil, by grade; null for the study's.", "0W-20"),
    "without_adapter": ("Whether the adapter is removed.", False),
    "adapter_holes": ("Other cross-holes; null for the adapter's own.", None),
    "leak": ("Defects past the media; null for those found.", None),
    "keys": ("Which samples or scenarios.", ["1"]),
    "done": ("Steps done.", 3),
    "total": ("Steps in all.", 10),
    "totals": ("What the start comes to; null where it cannot be computed.", None),
    "trace": ("The start over time; null where it cannot be computed.", None),
    "lives": ("How long the filter lasts, by speed.", []),
    "cycles": ("Names of the duty cycles there are.", ["mountain road"]),
    "speeds": ("Speeds at which lives are told.", []),
    "starts": ("Start of each sample.", []),
    "start": ("The start by itself.", None),
    "filters": ("The filters, side by side.", []),
    "csv": (
        "Duty cycle as CSV with time_s, speed_rpm and, if recorded, oil_temperature_c.",
        "time_s,speed_rpm\n0,900\n60,1500\n",
    ),
    "capacity_basis": ("Where the dirt capacity comes from: counts, stated, or family, which is assumed.", "counts"),
    "capacity_is_least": ("Whether the test ended before, so that it holds at least so much.", False),
    "clean_up": ("Time until half the particles of a size are out of the sump.", []),
    "is_cold_start": ("Whether the row is a cold start.", True),
    "steady_loading": ("Loading at which the valve opens when steady; null for never.", 4.2),
    "never_steady": ("Whether the valve never opens when steady.", False),
    "never_filling": ("Whether it never opens while filling.", False),
    "steady_is_least": ("Whether the test of the filter ended before, so that the hours are at least so many.", False),
    "filling_is_least": ("The same while filling.", False),
    "reaching": ("What of the particles of each size reaches the engine.", [{"size_um": 10.0, "percent": 31.0}]),
    "ReachingOut.percent": ("Share of all that the oil carries to the filter; null where only bounds are known.", 31.0),
    "ReachingOut.basis": ("Basis of the efficiency.", "counts"),
    "low_minutes": ("Lower end; null where it is only a bound.", 0.1),
    "high_minutes": ("Upper end; null where it is only a bound.", 0.9),
    # where a model means something else by a name
    "BeforeCutOut.missing": ("What can only be read before the cut, and was not.", []),
    "CatalogueOut.details": ("Details that can be stated.", []),
    "CatalogueOut.results": ("Results there are.", []),
    "ChoiceOut.value": ("The choice.", "clean"),
    "CircuitPartOut.details": ("Keys of the details of the part.", ["engine.gallery"]),
    "ClaimIn.value": ("What is claimed, with its unit; empty for words.", ">= 1.5 m"),
    "CutOut.at": ("When it was cut, ISO time in UTC; null where it is not known.", "2026-11-02T08:00:00.000Z"),
    "DeductionOut.measured": ("Whether it was measured.", True),
    "EfficiencyOut.estimate": ("Screening estimate at each size.", 82.0),
    "EstimateOut.inch_uncertainty": ("Standard uncertainty in inch units.", 0.0021),
    "EstimateOut.metric_uncertainty": ("Standard uncertainty in metric units.", 0.053),
    "EstimateOut.used": ("How many readings are in use.", 2),
    "HistoryOut.at": ("When it was done, ISO time in UTC.", "2026-11-02T08:00:00.000Z"),
    "HoleGroupIn.points": ("Points of an outline in mm, as typed.", "0 0, 4 0, 4 3.5"),
    "HoleGroupOut.points": ("Points of an outline in mm, as typed.", "0 0, 4 0, 4 3.5"),
    "KeptRowOut.value": ("Value as it is kept.", "860"),
    "ObservedValueOut.value": ("What is seen; null where it was not looked at.", "clean"),
    "OilRowIn.viscosity": ("Viscosity as typed.", "66"),
    "OpenWayOut.keys": ("Fields it takes, by key.", ["media.thickness"]),
    "ShortWayOut.keys": ("Fields it takes, by key.", ["media.thickness"]),
    "OpenNeedOut.group": ("Station at which it is usually taken.", "outside"),
    "OpenNeedOut.ways": ("Ways to it, the fewest empty fields first.", []),
    "OperatingMapOut.efficiency": ("Efficiency that the map captures with.", None),
    "OperatingMapOut.regulator": ("Where the regulator begins to open.", None),
    "PackOut.measured": ("What of the pack was measured, by key.", ["element.pleat_count"]),
    "PlateCircleOut.measured": ("Whether it was measured.", True),
    "ScenarioOut.words": ("What is otherwise, in words.", ["media resistance × 3"]),
    "SliceBandOut.along": ("Values the slice runs over, in °C or rpm.", -25.0),
    "UnitOut.inch": ("Unit shown in the inch family.", None),
    "UnitOut.metric": ("Unit shown in the metric family.", None),
}
"""Meaning and example by name; a number whose name says all needs no row."""


def unit_of_name(name: str) -> str | None:
    """Return the unit that a name ends in, or None.

    Examples
    --------
    >>> unit_of_name("element_kpa"), unit_of_name("filter_flow_l_min"), unit_of_name("label")
    ('kPa', 'L/min', None)
    """
    for end in _ENDS:
        if name == end or name.endswith(f"_{end}"):
            return UNITS_BY_END[end]
    return None


def described(model: str, name: str, schema: Mapping[str, Any]) -> dict[str, Any]:
    """Return description and example of a property.

    Parameters
    ----------
    model, name : str
    schema : Mapping
        Of the property. One that refers to another model has its example there.

    Returns
    -------
    dict
        ``description``, and ``examples`` of one.

    Raises
    ------
    KeyError
        If nothing says what it means.
    """
    unit = unit_of_name(name)
    meaning: str
    example: Any
    if model == "TermsOut":
        meaning, example = f"Words by key: {name.replace('_', ' ')}.", {"key": "word"}
    elif (said := PROPERTIES.get(f"{model}.{name}") or PROPERTIES.get(name)) is not None:
        meaning, example = said
    elif unit is not None:  # a number whose name says all
        end = next(end for end in _ENDS if name == end or name.endswith(f"_{end}"))
        plain = name.removesuffix(end).rstrip("_").replace("_", " ") or "amount"
        meaning, example = f"{plain[0].upper()}{plain[1:]}.", 20.0
    else:
        raise KeyError(f"{model}.{name}")
    described = {"description": f"{meaning} [{unit}]" if unit else meaning}
    return described if refers(schema) else {**described, "examples": [_fitting(example, schema)]}


def refers(schema: Mapping[str, Any]) -> bool:
    """Return whether a property is another model, or holds some."""
    inner = [schema.get("items"), schema.get("additionalProperties"), *schema.get("anyOf", ()), *schema.get("oneOf", ())]
    return "$ref" in schema or any(isinstance(one, dict) and refers(one) for one in inner)


def _fitting(example: Any, schema: Mapping[str, Any]) -> Any:
    """Return an example as the schema has it: one of several words, a number within as many lists as there are."""
    for one in schema.get("anyOf", ()):
        if one.get("type") != "null" and example is not None:
            return _fitting(example, one)
    if "const" in schema:
        return schema["const"]
    if "enum" in schema:
        return example if example in schema["enum"] else schema["enum"][0]
    if schema.get("type") == "array" and not isinstance(example, list):
        return [_fitting(example, schema["items"])]
    return example
