-- A job's page is kept until something that it shows is changed: so that is noted as well.
CREATE TRIGGER conditions_note_change AFTER INSERT OR UPDATE OR DELETE ON conditions FOR EACH ROW EXECUTE FUNCTION note_change_of_job();
--> statement-breakpoint
CREATE TRIGGER confirmed_causes_note_change AFTER INSERT OR UPDATE OR DELETE ON confirmed_causes FOR EACH ROW EXECUTE FUNCTION note_change_of_job();
--> statement-breakpoint
CREATE TRIGGER invoices_note_change AFTER INSERT OR UPDATE OR DELETE ON invoices FOR EACH ROW EXECUTE FUNCTION note_change_of_job();
--> statement-breakpoint
CREATE TRIGGER photos_note_change AFTER INSERT OR UPDATE OR DELETE ON photos FOR EACH ROW EXECUTE FUNCTION note_change_of_job();
