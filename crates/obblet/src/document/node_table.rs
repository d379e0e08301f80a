//! Tables beside the tree: what only some nodes of some formats have, by node.

use super::NodeId;
use std::collections::BTreeMap;

/// What is known of some nodes, in the order in which they were made.
#[derive(Clone, Debug, PartialEq)]
pub struct NodeTable<T>(BTreeMap<NodeId, T>);

impl<T> Default for NodeTable<T> {
    fn default() -> Self {
        Self(BTreeMap::new())
    }
}

impl<T> NodeTable<T> {
    /// What is known of a node.
    #[must_use]
    pub fn get(&self, node: NodeId) -> Option<&T> {
        self.0.get(&node)
    }

    /// Says what is known of a node.
    pub fn set(&mut self, node: NodeId, value: T) {
        self.0.insert(node, value);
    }

    /// Forgets a node.
    pub fn remove(&mut self, node: NodeId) -> Option<T> {
        self.0.remove(&node)
    }

    /// All nodes of which something is known. Some of them may not be in the tree any more.
    pub fn iter(&self) -> impl Iterator<Item = (NodeId, &T)> {
        self.0.iter().map(|(node, value)| (*node, value))
    }

    /// Whether nothing is known of any node.
    #[must_use]
    pub fn is_empty(&self) -> bool {
        self.0.is_empty()
    }
}
