//! Points, transforms and paths.

use std::fmt::Write;

/// A point.
pub(super) type Point = (f64, f64);

/// Beyond this, coordinates say nothing that can be shown.
const FARTHEST: f64 = 1e7;

/// A transform ([MS-WMF] 2.2.2.28): x' = m11 x + m21 y + dx, y' = m12 x + m22 y + dy.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(super) struct Matrix {
    pub(super) m11: f64,
    pub(super) m12: f64,
    pub(super) m21: f64,
    pub(super) m22: f64,
    pub(super) dx: f64,
    pub(super) dy: f64,
}

impl Matrix {
    pub(super) const IDENTITY: Self = Self { m11: 1.0, m12: 0.0, m21: 0.0, m22: 1.0, dx: 0.0, dy: 0.0 };

    /// This transform first, the other one behind it.
    pub(super) fn then(self, next: Self) -> Self {
        Self {
            m11: self.m11 * next.m11 + self.m12 * next.m21,
            m12: self.m11 * next.m12 + self.m12 * next.m22,
            m21: self.m21 * next.m11 + self.m22 * next.m21,
            m22: self.m21 * next.m12 + self.m22 * next.m22,
            dx: self.dx * next.m11 + self.dy * next.m21 + next.dx,
            dy: self.dx * next.m12 + self.dy * next.m22 + next.dy,
        }
    }

    pub(super) fn apply(self, (x, y): Point) -> Point {
        let bound = |number: f64| if number.is_finite() { number.clamp(-FARTHEST, FARTHEST) } else { 0.0 };
        (bound(self.m11 * x + self.m21 * y + self.dx), bound(self.m12 * x + self.m22 * y + self.dy))
    }

    /// How much longer lengths get.
    pub(super) fn scale(self) -> f64 {
        (self.m11 * self.m22 - self.m12 * self.m21).abs().sqrt()
    }
}

/// Writes a number with two digits behind the point at most.
pub(super) fn number(out: &mut String, number: f64) {
    let start = out.len();
    let _ = write!(out, "{number:.2}");
    let end = out[start..].trim_end_matches('0').trim_end_matches('.').len();
    out.truncate(start + end);
    if matches!(&out[start..], "-0" | "") {
        out.truncate(start);
        out.push('0');
    }
}

/// A path as SVG writes it, in the coordinates of the device.
#[derive(Clone, Debug, Default)]
pub(super) struct Path {
    pub(super) data: String,
}

impl Path {
    fn add(&mut self, command: char, points: &[Point]) {
        self.data.push(command);
        for (index, &(x, y)) in points.iter().enumerate() {
            if index > 0 {
                self.data.push(' ');
            }
            number(&mut self.data, x);
            self.data.push(' ');
            number(&mut self.data, y);
        }
    }

    pub(super) fn is_empty(&self) -> bool {
        self.data.is_empty()
    }

    pub(super) fn move_to(&mut self, point: Point) {
        self.add('M', &[point]);
    }

    pub(super) fn line_to(&mut self, point: Point) {
        self.add('L', &[point]);
    }

    pub(super) fn curve_to(&mut self, points: [Point; 3]) {
        self.add('C', &points);
    }

    /// A shape of points.
    pub(super) fn polygon(points: &[Point]) -> Self {
        let mut path = Self::default();
        path.polyline(points);
        path.close();
        path
    }

    /// Lines through points, apart from what was drawn before.
    pub(super) fn polyline(&mut self, points: &[Point]) {
        for (index, point) in points.iter().enumerate() {
            if index == 0 {
                self.move_to(*point);
            } else {
                self.line_to(*point);
            }
        }
    }

    /// Curves through points, apart from what was drawn before: a point, and three for each curve.
    pub(super) fn curves(&mut self, points: &[Point]) {
        if let Some((first, others)) = points.split_first() {
            self.move_to(*first);
            for curve in others.as_chunks::<3>().0 {
                self.curve_to(*curve);
            }
        }
    }

    pub(super) fn close(&mut self) {
        if !self.data.is_empty() {
            self.data.push('Z');
        }
    }
}

/// An elliptical arc as Bezier curves, from one angle to another, in radians with y downwards. The first point is where it begins.
pub(super) fn arc(centre: Point, radii: Point, from: f64, sweep: f64) -> Vec<Point> {
    let pieces = (sweep.abs() / std::f64::consts::FRAC_PI_2).ceil().clamp(1.0, 4.0);
    let step = sweep / pieces;
    let handle = 4.0 / 3.0 * (step / 4.0).tan();
    let at = |angle: f64| (centre.0 + radii.0 * angle.cos(), centre.1 + radii.1 * angle.sin());
    let tangent = |angle: f64| (-radii.0 * angle.sin() * handle, radii.1 * angle.cos() * handle);
    let mut points = vec![at(from)];
    let mut angle = from;
    for _ in 0..pieces as usize {
        let (start, end) = (at(angle), at(angle + step));
        let (leave, come) = (tangent(angle), tangent(angle + step));
        points.extend([(start.0 + leave.0, start.1 + leave.1), (end.0 - come.0, end.1 - come.1), end]);
        angle += step;
    }
    points
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_quarter_of_a_circle_ends_where_it_should() {
        let points = arc((0.0, 0.0), (10.0, 10.0), 0.0, std::f64::consts::FRAC_PI_2);
        assert_eq!(points.len(), 4);
        let (x, y) = points[3];
        assert!(x.abs() < 1e-9 && (y - 10.0).abs() < 1e-9);
        assert!((points[1].1 - 5.523).abs() < 0.001, "{points:?}");
        let mut out = String::new();
        for value in [1.005, -0.001, 12.5, 3.0, f64::from(i32::MIN)] {
            number(&mut out, value);
            out.push(' ');
        }
        assert_eq!(out, "1 0 12.5 3 -2147483648 ");
    }
}
