//! Maps and sets whose keys are hashed quickly. Keys are hashed with a seed of the process's own, so that no source can be made
//! of keys that collide; nothing depends on the order in which they are met.

use foldhash::fast::RandomState;

pub(crate) type HashMap<K, V> = std::collections::HashMap<K, V, RandomState>;
pub(crate) type HashSet<K> = std::collections::HashSet<K, RandomState>;
