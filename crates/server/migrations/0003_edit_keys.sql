-- The key under which a window sent an edit: sent again after an answer that was lost, it is made once.
alter table revisions add column edit_key uuid;
create unique index revisions_by_edit_key on revisions (household, edit_key);
