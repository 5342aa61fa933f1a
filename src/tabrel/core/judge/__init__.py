"""Which filter for which use, and how sure: categories, the ranking methods side by side, chances of places.

`categories`   what is compared, and who beats whom in one category: `Category`, `outcome`
`ranking_methods` pair wins, rank sum, weighted score, each with the places it can give
`allowance`    how far two specimens of one part number may lie apart: `allowance`, `spread_between_specimens`
`requirements` what a use asks, met, failed or open, with the reasons: `judge_number`, `judge_seen`, `by_pass_lines`
`same_part`    whether two filters are one part under two names: `part_facts`, `compare_parts`
`known`        what is known of one filter in one measure: `Known`, `of_result`, `of_reading`, `of_price`, `by_hand`
`known_filter` all that is known of one filter, and of its part number: `known_measures`, `of_part_numbers`
`knowledge_cache`   the same, computed once whatever asks for it: `KnowledgeCache`
`at_points`    what a filter does at the points of a use, with draws all filters share: `behaviour_at_points`
`percentiles`  where its numbers lie among all that was measured: `percentiles_of`
`comparison_sheet` everything known of several filters, row by row: `comparison_sheet`
`compared`     only what is alike, and what two filters share: `only_alike`, `joint_uncertainties`
`disagreements` where the methods put two filters in a different order: `disagreements`
`presets`      uses to begin with: `presets_for`
`judged_use`   one use judged whole: `judge_use`
`chances`      chance of each place from common draws, what would swap two places: `chance_of_place`, `swaps`
"""
