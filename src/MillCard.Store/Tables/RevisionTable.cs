using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace MillCard.Store.Tables;

/// <summary>Fixed states of cards and stock, as they stand in the database.</summary>
internal sealed class RevisionTable : IEntityTypeConfiguration<RevisionRow>
{
    public void Configure(EntityTypeBuilder<RevisionRow> revision)
    {
        revision.ToTable("revision", t => t.HasCheckConstraint("revision_number", "number > 0"));
        revision.HasKey(r => new { r.DocumentId, r.Number });
        revision.Property(r => r.DocumentId).HasColumnName("document_id");
        revision.Property(r => r.Number).HasColumnName("number").ValueGeneratedNever();
        revision.Property(r => r.Document).HasColumnName("document").HasColumnType("jsonb");
        revision.Property(r => r.Note).HasColumnName("note");
        revision.Property(r => r.Who).HasColumnName("who");
        revision.Property(r => r.At).HasColumnName("at");
        revision.HasOne<DocumentRow>().WithMany().HasForeignKey(r => r.DocumentId).OnDelete(DeleteBehavior.Cascade);
    }
}
