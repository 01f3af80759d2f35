// Nothing is an optional without value.
optional<double> meanOfDays(const vector<double> &days) {
    if (days.empty()) return nullopt;
    return accumulate(days.begin(), days.end(), 0.0) / days.size();
}
