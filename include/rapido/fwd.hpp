// The names of the core, for headers that only refer to them.
#pragma once

#include <cstdint>

#include "rapido/base/exported.hpp"

namespace rapido RAPIDO_EXPORTED {

class Hud;
struct HudDefinition;
struct ElementRef;
struct Shown;
struct Event;
struct Step;
struct Viewport;
struct Language;

class Source;
class Sources;
class Value;
class GameTimer;
class Countdown;
class Stopwatch;

struct Panel;
struct Text;
struct Bar;
struct Ring;
struct Level;
struct Pips;
struct Dial;
struct Ruler;
struct Graph;
struct Image;
struct Notice;
struct List;
struct Markers;
struct PopUps;
struct Message;

class DisplayList;
class DisplayGroup;
class TextMeasurer;
class ImageFinder;
class FlashLimit;

struct Problem;
class Status;
template <class T>
class Result;

}  // namespace rapido
