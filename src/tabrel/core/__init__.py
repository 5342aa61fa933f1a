"""The filtration analyst's rules and computation, in SI units, free of interface, SQL and files.

From what a person types to what a filter does:

`units`, `drills`, `reading_text`   understand one typed reading
`quantities`                        the catalogue of everything that can be measured
`readings`                          many readings to one estimate with its uncertainty
`study`                             the study: oil, circuit, samples, readings as typed
`study_checks`                      refuse what is impossible, by place and mend
`uncertain`                         propagation, effective degrees of freedom, the `Result`
`hole_shapes`, `holes`              areas and perimeters of real holes
`plate`, `media`, `bypass_valve`, `efficiency`   the headline results
`analysis`                          all results and warnings of one sample
`oil`, `restrictions`, `pleat_channels`          the physics of each part
`filter_model`, `filter_flow`       one filter as a hydraulic network
`circuit`, `operating_map`          the engine's oil circuit over temperature and speed
"""
