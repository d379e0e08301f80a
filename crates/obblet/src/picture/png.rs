//! Pictures and drawings as PNG, for programs that can't show them as they are.

/// A drawing as PNG, with two pixels for one of its own. Text in it is not drawn: that takes fonts, and the picture would be another
/// one on each machine.
#[cfg(all(feature = "rasterise", feature = "images"))]
pub(crate) fn of_drawing(bytes: &[u8]) -> Option<Vec<u8>> {
    use resvg::{tiny_skia, usvg};
    const LONGEST_SIDE: f32 = 4000.0;
    let tree = usvg::Tree::from_data(bytes, &usvg::Options::default()).ok()?;
    let size = tree.size();
    let scale = (LONGEST_SIDE / size.width().max(size.height())).min(2.0);
    let pixels = |length: f32| (length * scale).ceil().clamp(1.0, LONGEST_SIDE) as u32;
    let mut pixmap = tiny_skia::Pixmap::new(pixels(size.width()), pixels(size.height()))?;
    resvg::render(&tree, tiny_skia::Transform::from_scale(scale, scale), &mut pixmap.as_mut());
    let (width, height) = (pixmap.width(), pixmap.height());
    let pixels: Vec<u8> = pixmap.take_demultiplied().into_iter().collect();
    let mut png = Vec::new();
    let image = image::RgbaImage::from_raw(width, height, pixels)?;
    image.write_to(&mut std::io::Cursor::new(&mut png), image::ImageFormat::Png).ok()?;
    Some(png)
}

#[cfg(not(all(feature = "rasterise", feature = "images")))]
pub(crate) fn of_drawing(_: &[u8]) -> Option<Vec<u8>> {
    None
}

/// A picture as PNG, where it can be decoded.
#[cfg(feature = "images")]
pub(crate) fn of_picture(bytes: &[u8]) -> Option<Vec<u8>> {
    let format = image::guess_format(bytes).ok()?;
    let mut png = Vec::new();
    super::decoder(bytes, format).decode().ok()?.write_to(&mut std::io::Cursor::new(&mut png), image::ImageFormat::Png).ok()?;
    Some(png)
}

#[cfg(not(feature = "images"))]
pub(crate) fn of_picture(_: &[u8]) -> Option<Vec<u8>> {
    None
}
