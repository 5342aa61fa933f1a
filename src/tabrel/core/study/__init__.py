"""The study as typed: engine, oil, filters and their readings, and what is only thought of.

`model`     the study document as dataclasses: `Study`, `Sample`, `Circuit`, `Oil`, `Reading`, `Claim` …
`plans`     what is only thought of: `Scenario`, `DutyCycle`, `WarmUpPlan`
`defaults`  what is taken where a study does not state it
`strict`    what every part of the document shares: no unknown keys, no numbers that are not finite
"""
