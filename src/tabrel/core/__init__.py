"""The filtration analyst's rules and computation, in SI units, free of interface, SQL and files.

From what a person types to what a filter does:

`errors`                            what the core raises
`units`, `drills`, `reading_text`   understand one typed reading
`quantities`                        the catalogue of everything that can be measured
`readings`                          many readings to one estimate with its uncertainty
`uncertain`                         propagation, effective degrees of freedom, the `Result`
`study`                             the study: oil, circuit, samples, readings as typed
`study_checks`, `checks`            refuse what is impossible; warn of what is implausible
`echo`                              what a field understood, before a reading is accepted
`hole_shapes`, `holes`              areas and perimeters of real holes
`measured`                          every estimate of one sample, made once
`plate`, `media`, `bypass_valve`, `efficiency`   the headline results
`analysis`                          all results and warnings of one sample
`oil`, `restrictions`, `pleat_channels`          the physics of each part
`filter_model`, `filter_flow`       one filter as a hydraulic network, and its state at one unknown
`circuit`, `operating_point`        the engine's oil circuit, and one filter put into it
`root_finding`                      roots of a whole grid at once
`operating_map`, `bypass_onset`     the solved grid, and the curve on which the bypass opens
"""
