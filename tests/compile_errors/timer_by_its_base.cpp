// (is protected within this context|calling a protected destructor)
#include <memory>
#include <rapido/rapido.hpp>

int main() {
    const std::unique_ptr<rapido::GameTimer> timer(new rapido::Countdown(rapido::Seconds{1}));
}
