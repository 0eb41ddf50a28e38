// rapido::watch cannot show a value of this type
#include <rapido/value.hpp>
struct Village {
    int houses;
};
int main() {
    Village village;
    rapido::watch(village);
}
