class Solution {
    Map<String, Object> flattened(Object log, String join) {
        Map<String, Object> out = new HashMap<>();
        walk(log, "", join, out);
        return out;
    }
    void walk(Object v, String path, String join, Map<String, Object> out) {
        String before = path.isEmpty() ? "" : path + join;
        if (v instanceof Map) for (Map.Entry<?, ?> e : ((Map<?, ?>) v).entrySet()) walk(e.getValue(), before + e.getKey(), join, out);
        else if (v instanceof List) for (int i = 0; i < ((List<?>) v).size(); i++) walk(((List<?>) v).get(i), before + i, join, out);
        else out.put(path, v);
    }
}
