"""Drawings of a filter and the figures beside them, computed from its readings.

`section_sizes`, `section_layout`   the section through the whole filter
`plate_summary`                     what is shown beside the areas of the plate
`valve_sizes`                       sizes with which the bypass valve is drawn
`opening_evidence`                  every way to the bypass opening pressure, side by side
`pleat_pack`, `pleat_count`         the pack end-on, and the loss against the number of pleats
`media_deductions`                  the strip from gross to effective area
`efficiency_evidence`               claims and the screening estimate side by side
`counted_figure`                    a counted test: points, curve, the test along time, loading
`parts_tray`                        mass balance of the opened filter, wall and strength as comparisons
"""
