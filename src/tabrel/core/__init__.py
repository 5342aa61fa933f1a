"""The filtration analyst's rules and computation, in SI units, free of interface, SQL and files.

From what a person types to what a filter does:

`errors`                            what the core raises
`units`, `drills`, `reading_text`   understand one typed reading
`quantities`                        the catalogue of everything that can be measured
`field_entry`, `hole_entry`         understand a whole line typed into a field, or a group of holes in one line
`readings`                          many readings to one estimate with its uncertainty
`uncertain`                         propagation, effective degrees of freedom, the `Result`
`drawn`, `draws`                    the same formulas over draws: Monte Carlo, and one input at a time
`study`, `study_base`, `study_plans` the study: oil, circuit, samples, readings as typed; what is only thought of
`attribute`, `attributes`           what is seen, and its catalogue (`attributes_outside`, `attributes_inside`)
`fact`, `facts`, `circuit_facts`    what is typed once, and its catalogue; `plain_units` reads its numbers
`study_checks`, `plan_checks`, `refusals`   refuse what is impossible
`reading_checks`, `checks`, `slips` warn of what is implausible, and name the likely slip
`echo`                              what a field understood, before a reading is accepted
`claim_check`                       what readings say of a claim
`gate`                              what can be learned only before the cut
`hole_shapes`, `holes`              areas and perimeters of real holes
`measured`                          every estimate of one sample, made once
`plate`, `media`, `bypass_valve`, `efficiency`   the headline results
`plate_layout`, `plate_summary`     the plate drawn from below, and the figures beside its areas
`opening_evidence`, `valve_curve`   every way to the bypass opening pressure; the valve on its own
`section_sizes`, `section_layout`   the section through the whole filter
`pleat_pack`                        the pleat pack as it is drawn end-on
`media_deductions`, `pleat_count`   the strip from gross to effective area; the loss against the number of pleats
`efficiency_evidence`               claims and the screening estimate side by side
`parts_tray`                        mass balance of the opened filter, wall and strength as comparisons
`analysis`                          all results and warnings of one sample
`working`, `working_chains`         every result as lines of formula, numbers and result
`oil`, `restrictions`, `pleat_channels`          the physics of each part
`oil_line`, `grades`, `engines`     the viscosity line as it is drawn; typical oils and invented engines to begin with
`filter_model`, `filter_flow`       one filter as a hydraulic network, and its state at one unknown
`circuit`, `calibration`            the engine's oil circuit, and how it comes from what is stated
`circuit_state`                     the whole circuit at one unknown
`operating_point`, `what_if`        one filter put into it, as it is or in a scenario; a scenario in words
`root_finding`, `roots_at_places`, `spread`   roots of a whole grid, and of many draws, at once
`solved_circuit`, `operating_map`   what the solution tells, over a grid, with the ledger
`threshold_curve`, `bypass_onset`   where bypass and regulator open and close, solved as curves
`filter_alone`                      the filter without an engine, over temperature and flow
`engine_summary`, `side_by_side`    the check at the hot point; the two questions answered for one filter
`monte_carlo`, `sensitivity`        bands and intervals; which assumption moves a map most
`duty_cycle`, `warm_up`, `life`     a start followed in time; how long a filter lasts
"""
