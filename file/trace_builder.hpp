// What readers of traces have in common: each format is a function that gives a builder names, rows and values.
#pragma once

#include <cstddef>
#include <memory>
#include <optional>
#include <string>
#include <string_view>
#include <unordered_map>
#include <vector>

#include "rapido/file.hpp"

namespace rapido {

inline constexpr std::size_t largest_trace = 256'000'000;
inline constexpr std::size_t most_columns = 1024;
inline constexpr double latest_time = 1e9;  ///< seconds

/// Returns what is wrong with the text as a whole.
std::optional<Problem> trace_fault(std::string_view text, const std::string& name);

/// A time of a row, or nothing if a trace cannot hold it.
std::optional<Nanoseconds> trace_time(double seconds);

/// Makes a trace out of what a reader found, in the order of the text, and gathers what is wrong with it.
class TraceBuilder {
 public:
    using ColumnIndex = std::size_t;

    /// `text` is copied, and kept until the end of reading.
    TraceBuilder(std::string_view text, std::string name)
        : name_(std::move(name)), text_(std::make_shared<const std::string>(text)) {}
    /// Returns the kept text, without a byte order mark.
    std::string_view text() const;

    /// Returns the column of a name, made if it is new; nothing beyond the most columns of a trace.
    std::optional<ColumnIndex> column(std::string_view name);
    std::size_t column_count() const { return trace_.columns_.size(); }
    std::string_view name_of(ColumnIndex column) const { return trace_.columns_[column].name; }
    /// Begins a row. Returns which of the two times goes back from the row before, or an empty text.
    std::string_view add_row(Nanoseconds time, Nanoseconds game_time);
    bool has_rows() const { return !trace_.rows_.empty(); }
    /// From the last row on, or from `row` on, a column has this value. Rows of one column must not go back.
    void set(ColumnIndex column, const Value& value) { set(column, value, trace_.rows_.size() - 1); }
    void set(ColumnIndex column, const Value& value, std::size_t row);
    /// The type of a column, which its reader decides.
    Value::Type& type(ColumnIndex column) { return trace_.columns_[column].type; }
    /// Keeps the whole text with the trace, so that values may be views of it.
    void keep_text() { trace_.text_ = text_; }
    /// Keeps a text that does not stand in the file as it is.
    std::string_view keep(std::string text);

    void fail(int line, int column, std::string message, std::string hint = {});
    /// A hundred problems are as good as any more.
    bool has_enough() const;
    bool is_fine() const { return problems_.empty(); }
    /// Returns the trace, or what is wrong with it.
    Result<Trace> finish();

 private:
    std::string name_;
    std::shared_ptr<const std::string> text_;
    std::unordered_map<std::string, ColumnIndex> columns_;
    Trace trace_;
    Problems problems_;
};

}  // namespace rapido
