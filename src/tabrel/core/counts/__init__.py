"""A counted test: what was counted, the efficiency curve with its interval, the test along time, dust loading.

`totals`         which intervals and sizes are used, net totals, β at each counted size: `count_totals`
`curve_form`     the two forms a curve may have
`channels`       counts between sizes, and what explains them best
`curve`          the curve of greatest likelihood and its uncertainty: `fit_curve`
`counted_test`   a test worked out once, and what it says of any size: `counted_test`
`along_time`     efficiency of each interval: lowest, average, last
`dust_loading`   dust retained, loading curve, capacity by interpolation
`checks`         what speaks against a test, or is open, in sentences
"""
