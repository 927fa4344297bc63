using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace MillCard.Store.Tables;

/// <summary>Documents of all kinds, as they stand in the database.</summary>
internal sealed class DocumentTable : IEntityTypeConfiguration<DocumentRow>
{
    public void Configure(EntityTypeBuilder<DocumentRow> document)
    {
        document.ToTable("document", t =>
        {
            t.HasCheckConstraint("document_kind", "kind in ('card', 'filament', 'recipe', 'trial')");
            t.HasCheckConstraint("document_place", "place in ('shelf', 'archive', 'bin')");
            t.HasCheckConstraint("document_card", "(kind = 'trial') = (card_id is not null)");
        });
        document.HasKey(d => d.Id);
        document.Property(d => d.Id).HasColumnName("id").ValueGeneratedNever();
        document.Property(d => d.Kind).HasColumnName("kind");
        document.Property(d => d.Name).HasColumnName("name");
        document.Property(d => d.Draft).HasColumnName("draft").HasColumnType("jsonb");
        document.Property(d => d.Summary).HasColumnName("summary").HasColumnType("jsonb");
        document.Property(d => d.CardId).HasColumnName("card_id");
        document.Property(d => d.Place).HasColumnName("place")
            .HasConversion(p => p.ToString().ToLowerInvariant(), p => Enum.Parse<DocumentPlace>(p, true))
            .HasDefaultValue(DocumentPlace.Shelf).HasSentinel(DocumentPlace.Shelf);
        document.Property(d => d.CreatedAt).HasColumnName("created_at");
        document.Property(d => d.SavedAt).HasColumnName("saved_at");
        document.Property(d => d.Version).IsRowVersion();
        document.HasIndex(d => new { d.Kind, d.Place, d.Name });
        document.HasOne<DocumentRow>().WithMany().HasForeignKey(d => d.CardId).OnDelete(DeleteBehavior.Cascade);
    }
}
