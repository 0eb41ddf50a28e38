// this one is a temporary
#include <rapido/value.hpp>
int main() {
    rapido::watch(40 + 2);
}
