//! Visiting a tree without recursion.

use super::{Document, NodeId};

/// One step of a walk.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Step {
    /// The walk comes to a node; its children follow.
    Enter(NodeId),
    /// The walk leaves a node; its children are done.
    Leave(NodeId),
}

/// Enters and leaves every node of a tree, in document order. Uses no stack and no memory.
///
/// ```
/// use obblet::document::{Document, Kind, Step};
///
/// let mut doc = Document::new();
/// let quote = doc.append(doc.root(), Kind::BlockQuote);
/// doc.append(quote, Kind::Paragraph);
/// let depth = doc.walk(doc.root()).filter(|step| matches!(step, Step::Enter(_))).count();
/// assert_eq!(depth, 3);
/// ```
#[derive(Clone, Debug)]
pub struct Walk<'d> {
    doc: &'d Document,
    top: NodeId,
    next: Option<Step>,
}

impl<'d> Walk<'d> {
    pub(super) const fn new(doc: &'d Document, top: NodeId) -> Self {
        Self { doc, top, next: Some(Step::Enter(top)) }
    }

    /// After `Enter(node)`: leaves the node next, without visiting what is below it.
    pub fn skip_children(&mut self, node: NodeId) {
        self.next = Some(Step::Leave(node));
    }
}

impl Iterator for Walk<'_> {
    type Item = Step;

    #[inline]
    fn next(&mut self) -> Option<Step> {
        let step = self.next?;
        self.next = match step {
            Step::Enter(id) => Some(match self.doc.node(id).first_child() {
                Some(child) => Step::Enter(child),
                None => Step::Leave(id),
            }),
            Step::Leave(id) if id == self.top => None,
            Step::Leave(id) => {
                let node = self.doc.node(id);
                match node.next() {
                    Some(next) => Some(Step::Enter(next)),
                    None => node.parent().map(Step::Leave),
                }
            }
        };
        Some(step)
    }
}
