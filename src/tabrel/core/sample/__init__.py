"""One filter as measured: every estimate made once, for results and model alike.

`measured_sample`   `measure_sample` makes a `MeasuredSample` of a sample as typed
`stated_setting`    the bypass setting that is stated, in its field or in a claim
`claims_and_counts` an efficiency claim against a counted test: `compare_with_counts`
`efficiency`        its efficiency from the best evidence there is
"""
