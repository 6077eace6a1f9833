// Stands for the icon sets of the elements in tests, as nothing does in the page: signs are paths, ui/drawing/Icon.
module.exports = { __esModule: true, default: () => null }
