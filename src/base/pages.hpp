// An array that grows without moving what is in it.
#pragma once

#include <array>
#include <cstddef>
#include <memory>
#include <vector>

namespace rapido {

/// Grows by a page at a time, so that little is kept for what may come, and what is in it stays where it is.
template <class T, std::size_t PageSize = 32>
class Pages {
 public:
    T& operator[](std::size_t index) { return (*pages_[index / PageSize])[index % PageSize]; }
    const T& operator[](std::size_t index) const { return (*pages_[index / PageSize])[index % PageSize]; }
    std::size_t size() const { return count_; }
    void grow_to(std::size_t count) {
        while (pages_.size() * PageSize < count)
            pages_.push_back(std::make_unique<std::array<T, PageSize>>());
        count_ = count > count_ ? count : count_;
    }

    template <class Array>
    class Iterator {
     public:
        Iterator(Array& array, std::size_t at) : array_(array), at_(at) {}
        auto& operator*() const { return array_[at_]; }
        Iterator& operator++() {
            ++at_;
            return *this;
        }
        bool operator==(const Iterator& other) const { return at_ == other.at_; }

     private:
        Array& array_;
        std::size_t at_;
    };
    Iterator<Pages> begin() { return {*this, 0}; }
    Iterator<Pages> end() { return {*this, count_}; }
    Iterator<const Pages> begin() const { return {*this, 0}; }
    Iterator<const Pages> end() const { return {*this, count_}; }

 private:
    std::vector<std::unique_ptr<std::array<T, PageSize>>> pages_;
    std::size_t count_ = 0;
};

}  // namespace rapido
