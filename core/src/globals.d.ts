/** The one global of a host that the core may use: pure, and the same in browsers (HTML standard) and Node.js. */
declare function structuredClone<Value>(value: Value): Value
