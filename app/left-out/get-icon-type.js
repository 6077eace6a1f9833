/** Stands for the elements' own: it names icon sets that are left out. Our signs are paths, `ui/drawing/Icon`. */
export default () => null
