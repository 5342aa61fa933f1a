"""Details: typed once of a study, a sample, an engine, an oil or a plan, and not measured.

`detail`            one row: key, title, kind, place
`kinds`             how a text is understood, kept as typed, and shown: `understood_detail`, `typed_detail`, `detail_text`
`sample_details`    the rows of study and sample
`condition_details` the conditions of a counted test: `with_counts`
`circuit_details`   the rows of engine, oil and plan
`scenario_details`  what may be typed in a scenario: `with_scenario_detail`
`places`            reads and sets a detail at its place in the study: `value_at`, `with_typed_value`
`details`           all of them: `DETAILS`, `detail_values`, `with_sample_detail`, `with_study_detail`, `assumed_details`
`library_engine`    an engine of the library: what it would change, and which lines are kept: `with_library_engine`
`oil_rows`          points of the viscosity line as typed: `with_oil_rows`
`shelf_age`         how long a filter lay
"""
