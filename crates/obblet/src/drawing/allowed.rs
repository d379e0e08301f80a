//! What a drawing may hold. Whatever is not in these lists is left out.
//!
//! They follow SVG 2 with its modules for filters, masks, clipping and animation, without what runs script (`script` and its
//! like, event attributes), holds another document (`foreignObject`, and HTML's own elements), or loads something from
//! elsewhere. All lists are sorted.

/// Elements.
#[rustfmt::skip]
const ELEMENTS: [&str; 60] = [
    "a", "animate", "animateMotion", "animateTransform", "circle", "clipPath", "defs", "desc", "ellipse", "feBlend",
    "feColorMatrix", "feComponentTransfer", "feComposite", "feConvolveMatrix", "feDiffuseLighting", "feDisplacementMap",
    "feDistantLight", "feDropShadow", "feFlood", "feFuncA", "feFuncB", "feFuncG", "feFuncR", "feGaussianBlur", "feImage",
    "feMerge", "feMergeNode", "feMorphology", "feOffset", "fePointLight", "feSpecularLighting", "feSpotLight", "feTile",
    "feTurbulence", "filter", "g", "image", "line", "linearGradient", "marker", "mask", "mpath", "path", "pattern", "polygon",
    "polyline", "radialGradient", "rect", "set", "stop", "style", "svg", "switch", "symbol", "text", "textPath", "title",
    "tspan", "use", "view",
];

/// Attributes whose values are numbers, names, lists of them, or words for readers: they can't load or run anything.
#[rustfmt::skip]
const ATTRIBUTES: [&str; 128] = [
    "accumulate", "additive", "amplitude", "aria-describedby", "aria-hidden", "aria-label", "aria-labelledby",
    "aria-roledescription", "attributeType", "azimuth", "baseFrequency", "baseProfile", "begin", "bias", "calcMode", "class",
    "clipPathUnits", "cx", "cy", "d", "diffuseConstant", "divisor", "dur", "dx", "dy", "edgeMode", "elevation", "end",
    "exponent", "filterUnits", "focusable", "fr", "fx", "fy", "gradientTransform", "gradientUnits", "height", "id", "in", "in2",
    "intercept", "k1", "k2", "k3", "k4", "kernelMatrix", "kernelUnitLength", "keyPoints", "keySplines", "keyTimes", "lang",
    "lengthAdjust", "limitingConeAngle", "markerHeight", "markerUnits", "markerWidth", "maskContentUnits", "maskUnits", "max",
    "media", "method", "min", "mode", "numOctaves", "offset", "operator", "order", "orient", "origin", "path", "pathLength",
    "patternContentUnits", "patternTransform", "patternUnits", "points", "pointsAtX", "pointsAtY", "pointsAtZ", "preserveAlpha",
    "preserveAspectRatio", "primitiveUnits", "r", "radius", "refX", "refY", "repeatCount", "repeatDur", "requiredExtensions",
    "requiredFeatures", "restart", "result", "role", "rotate", "rx", "ry", "scale", "seed", "side", "slope", "spacing",
    "specularConstant", "specularExponent", "spreadMethod", "startOffset", "stdDeviation", "stitchTiles", "surfaceScale",
    "systemLanguage", "tabindex", "tableValues", "targetX", "targetY", "textLength", "transform", "type", "version", "viewBox",
    "width", "x", "x1", "x2", "xChannelSelector", "y", "y1", "y2", "yChannelSelector", "z", "zoomAndPan",
];

/// Properties of styles, which may be attributes as well (SVG 2, section 6.6). Their values are parsed.
#[rustfmt::skip]
const PROPERTIES: [&str; 144] = [
    "alignment-baseline", "animation", "animation-delay", "animation-direction", "animation-duration", "animation-fill-mode",
    "animation-iteration-count", "animation-name", "animation-play-state", "animation-timing-function", "background",
    "background-color", "baseline-shift", "border", "clip", "clip-path", "clip-rule", "color", "color-interpolation",
    "color-interpolation-filters", "color-rendering", "cursor", "cx", "cy", "d", "direction", "display", "dominant-baseline",
    "enable-background", "fill", "fill-opacity", "fill-rule", "filter", "float", "flood-color", "flood-opacity", "font",
    "font-family", "font-feature-settings", "font-kerning", "font-optical-sizing", "font-size", "font-size-adjust",
    "font-stretch", "font-style", "font-variant", "font-variant-caps", "font-variant-east-asian", "font-variant-ligatures",
    "font-variant-numeric", "font-variant-position", "font-variation-settings", "font-weight", "glyph-orientation-horizontal",
    "glyph-orientation-vertical", "height", "image-rendering", "inline-size", "isolation", "kerning", "letter-spacing",
    "lighting-color", "line-height", "margin", "margin-bottom", "margin-left", "margin-right", "margin-top", "marker",
    "marker-end", "marker-mid", "marker-start", "mask", "mask-type", "max-height", "max-width", "min-height", "min-width",
    "mix-blend-mode", "opacity", "outline", "overflow", "padding", "padding-bottom", "padding-left", "padding-right",
    "padding-top", "paint-order", "pointer-events", "r", "rotate", "rx", "ry", "scale", "shape-inside", "shape-margin",
    "shape-outside", "shape-padding", "shape-rendering", "shape-subtract", "solid-color", "solid-opacity", "stop-color",
    "stop-opacity", "stroke", "stroke-dasharray", "stroke-dashoffset", "stroke-linecap", "stroke-linejoin", "stroke-miterlimit",
    "stroke-opacity", "stroke-width", "text-align", "text-anchor", "text-decoration", "text-decoration-color",
    "text-decoration-line", "text-decoration-style", "text-decoration-thickness", "text-indent", "text-orientation",
    "text-overflow", "text-rendering", "text-transform", "transform", "transform-box", "transform-origin", "transition",
    "transition-delay", "transition-duration", "transition-property", "transition-timing-function", "translate", "unicode-bidi",
    "vector-effect", "vertical-align", "visibility", "white-space", "width", "will-change", "word-spacing", "writing-mode", "x",
    "y",
];

/// Functions in values of styles, in lower case. None of them loads anything; `url()` is looked at by itself.
#[rustfmt::skip]
const FUNCTIONS: [&str; 59] = [
    "blur", "brightness", "calc", "circle", "clamp", "color", "color-mix", "contrast", "cubic-bezier", "device-cmyk",
    "drop-shadow", "ellipse", "grayscale", "hsl", "hsla", "hue-rotate", "hwb", "inset", "invert", "lab", "lch", "linear",
    "matrix", "matrix3d", "max", "min", "oklab", "oklch", "opacity", "path", "perspective", "polygon", "ray", "rect", "rgb",
    "rgba", "rotate", "rotate3d", "rotatex", "rotatey", "rotatez", "saturate", "scale", "scale3d", "scalex", "scaley", "scalez",
    "sepia", "skew", "skewx", "skewy", "steps", "translate", "translate3d", "translatex", "translatey", "translatez", "var",
    "xywh",
];

/// Attributes of animations that hold values of the attribute that they change. They are parsed as values of styles.
const ANIMATED: [&str; 4] = ["by", "from", "to", "values"];

/// What an attribute of an element is.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Attribute {
    /// It may hold anything.
    Plain(&'static str),
    /// It holds a value of a style.
    Value(&'static str),
    /// It holds declarations of styles.
    Style,
    /// It says which attribute an animation changes.
    Name,
    /// It leads somewhere.
    Address,
}

fn find(list: &'static [&'static str], name: &str) -> Option<&'static str> {
    list.binary_search(&name).ok().map(|at| list[at])
}

/// An element that may stay.
pub(super) fn element(name: &str) -> Option<&'static str> {
    find(&ELEMENTS, name)
}

/// An attribute without a namespace that may stay.
pub(super) fn attribute(name: &str) -> Option<Attribute> {
    match name {
        "style" => Some(Attribute::Style),
        "href" => Some(Attribute::Address),
        "attributeName" => Some(Attribute::Name),
        _ => {
            let plain = || find(&ATTRIBUTES, name).map(Attribute::Plain);
            let value = || find(&PROPERTIES, name).or_else(|| find(&ANIMATED, name)).map(Attribute::Value);
            plain().or_else(value)
        }
    }
}

/// Whether an animation may change an attribute: one that holds no address, no style rules and no script.
pub(super) fn is_animated(name: &str) -> bool {
    matches!(attribute(name), Some(Attribute::Plain(_) | Attribute::Value(_))) && !ANIMATED.contains(&name) && name != "id"
}

/// Whether a property may stay.
pub(super) fn property(name: &str) -> bool {
    find(&PROPERTIES, name).is_some()
}

/// Whether a function may stand in a value; in lower case.
pub(super) fn function(name: &str) -> bool {
    find(&FUNCTIONS, name).is_some()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn lists_are_sorted_and_hold_nothing_that_runs_or_loads() {
        for list in [&ELEMENTS[..], &ATTRIBUTES, &PROPERTIES, &FUNCTIONS, &ANIMATED] {
            assert!(list.is_sorted_by(|a, b| a < b));
            for name in list {
                let low = name.to_ascii_lowercase();
                assert!(!low.starts_with("on") && !["script", "foreignobject", "iframe", "src", "base"].contains(&low.as_str()));
                assert!(
                    !["url", "src", "image", "image-set", "element", "attr", "env", "expression", "paint"].contains(name)
                        || name == &"image" && list.contains(&"svg")
                );
            }
        }
        assert!(!is_animated("href") && !is_animated("style") && !is_animated("attributeName") && is_animated("fill"));
    }
}
