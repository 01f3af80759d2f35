struct Node *secondChart(struct Node *camp) { return camp; }
