# It returns the chart itself.
def second_chart(camp) = camp
