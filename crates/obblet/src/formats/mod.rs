//! One room for each format. A room turns its format into the model and the model into its format, and knows no other room.

pub mod html;
pub mod markdown;
