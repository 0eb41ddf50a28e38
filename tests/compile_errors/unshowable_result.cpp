// rapido::watch cannot show a value of this type
#include <rapido/value.hpp>
struct Village {
    int houses;
};
int main() {
    rapido::watch([] { return Village{3}; });
}
