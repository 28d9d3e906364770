-- The address of a result names every document of a set: 500 of them do not fit into 500 characters.
alter table act modify column result text not null;
