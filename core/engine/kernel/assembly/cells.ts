// The kernel's form of core/engine/voice/both/cells.ts.

export function get(at: i32): f64 {
  return load<f64>((<usize>at) << 3)
}

export function put(at: i32, value: f64): void {
  store<f64>((<usize>at) << 3, value)
}

export function toPlace(value: f64): i32 {
  return <i32>value
}

export function getLine(at: i32): f64 {
  return <f64>load<f32>((<usize>at) << 2)
}

export function putLine(at: i32, value: f64): void {
  store<f32>((<usize>at) << 2, <f32>(Math.abs(value) < 1e-20 ? 0 : value))
}
