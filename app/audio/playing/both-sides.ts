/** What is one channel sounds left and right, and no further, however many channels the device has. */
export function onBothSides<Of extends AudioNode>(node: Of): Of {
  node.channelCount = 2
  node.channelCountMode = 'explicit'
  return node
}
