// rapido::watch cannot show what this gives
#include <rapido/value.hpp>
struct Village {
    int houses;
};
int main() {
    rapido::watch([] { return Village{3}; });
}
