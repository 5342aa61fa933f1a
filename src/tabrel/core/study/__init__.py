"""The study as typed: engine, oil, filters and their readings, and plans.

`model`        the study document as dataclasses: `Study`, `Sample`, `Claim`, `TypedNumber`; it hands on the next three
`frame`        what they are made of: `Reading`, `HoleGroup`, `Oil`, `Circuit`
`evidence`     what tests and benches say: `Counts`, `FlowBench`, `BypassBench`, `Photograph`
`in_use`       what was found on a used filter, change intervals, gauge logs, own instruments
`uses`         what the filters are to be good for: `Use`
`plans`        plans: `Scenario`, `DutyCycle`, `WarmUpPlan`
`history`      how a study came about: `History`
`library`      what belongs to no study: `Library`, `SavedEngine`, `SavedTemplate`, `DateCodeRule`
`report_plan`  what the report holds, in which order: `ReportPlan`
`arithmetic`   sums as printed, kept with a study or alone: `ArithmeticLine`, `Audit`
`number_keys`  keys under which numbers are kept as they were typed: `number_key`, `typed_at`
`defaults`     what is taken where a study does not state it
`strict`       what every part of the document shares: no unknown keys, no numbers that are not finite
"""
