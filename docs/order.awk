# Lists the members of the structs that games fill in, in the order in which designators must stand. Run by scripts/reference.
function finish_member(text,   parts, i, words, count, name) {
    gsub(/\[\[[^]]*\]\]/, "", text)
    while (text ~ /\{[^{}]*\}/) gsub(/\{[^{}]*\}/, "", text)
    while (text ~ /<[^<>]*>/) gsub(/<[^<>]*>/, "", text)
    if (text ~ /\(/) sub(/=.*$/, "", text)
    gsub(/=[^,;]*/, "", text)
    sub(/;.*$/, "", text)
    gsub(/^ +| +$/, "", text)
    if (text ~ /\(/ || text ~ /^(friend|using|static|enum|struct|class|template|public|private|explicit|constexpr)/) return
    parts = split(text, declared, ",")
    for (i = 1; i <= parts; ++i) {
        count = split(declared[i], words, /[ &*]+/)
        while (count > 0 && words[count] == "") --count
        name = words[count]
        if ((i == 1 && count < 2) || name !~ /^[a-z_]+$/) continue
        members = members (members == "" ? "" : ", ") "`" name "`"
    }
}
BEGIN {
    print "# The order of designators"
    print ""
    print "C++ wants designated initialisers in the order of the members. This is that order, for every struct that a game fills in; the"
    print "[reference](reference.md) says what each is. The page is made out of the headers by `scripts/reference`."
    print ""
    print "| struct | its members, in order |"
    print "|---|---|"
}
/^struct [A-Za-z]+ \{/ { struct = $2; members = ""; pending = ""; depth = 1; next }
struct != "" && /^\};/ {
    if (members != "") print "| `" struct "` | " members " |"
    struct = ""
    next
}
struct != "" {
    line = $0
    sub(/\/\/.*$/, "", line)
    if (line ~ /^ *$/) next
    # Bodies of functions and nested types are passed over.
    opens = gsub(/\{/, "{", line); closes = gsub(/\}/, "}", line)
    if (depth > 1) { depth += opens - closes; next }
    pending = pending " " line
    if (pending ~ /\(/ && opens > closes) { depth += opens - closes; pending = ""; next }
    left = pending
    if (gsub(/\{/, "", left) > gsub(/\}/, "", left)) next
    if (line ~ /; *$/ || line ~ /\} *$/) {
        finish_member(pending)
        pending = ""
    }
}
