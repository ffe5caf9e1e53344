using System.Globalization;
using System.Text.Encodings.Web;
using Fluid;
using Fluid.Values;

namespace Fid.Acts.Mail;

/// <summary>Marks what a text names and there is not: as ⟦name?⟧ where it would stand. A condition still takes it for nothing.</summary>
internal sealed class MissingMarks
{
    private readonly List<string> _missing = [];

    public MissingMarks(int mostSteps)
    {
        Options = new TemplateOptions
        {
            MemberAccessStrategy = new Strategy(),
            MaxSteps = mostSteps,
            StrictFilters = true,
        };
        Options.ValueConverters.Add(value => value is Nothing nothing ? new Mark(nothing.Name, this) : null);
    }

    public TemplateOptions Options { get; }

    /// <summary>What was asked for in vain and would have stood somewhere, each once.</summary>
    public IReadOnlyList<string> Missing => _missing;

    private void Note(string name)
    {
        if (!_missing.Contains(name))
            _missing.Add(name);
    }

    private sealed record Nothing(string Name);

    private sealed class Mark(string name, MissingMarks marks) : FluidValue
    {
        public override FluidValues Type => FluidValues.Nil;

        public override bool Equals(FluidValue other) => other.IsNil();

        public override bool ToBooleanValue() => false;

        public override decimal ToNumberValue() => 0;

        public override object? ToObjectValue() => null;

        public override string ToStringValue()
        {
            marks.Note(name);
            return $"⟦{name}?⟧";
        }

        public override bool IsNil() => true;

        public override async ValueTask WriteToAsync(TextWriter writer, TextEncoder encoder, CultureInfo cultureInfo) =>
            await writer.WriteAsync(ToStringValue());
    }

    private sealed class Strategy : MemberAccessStrategy
    {
        private readonly UnsafeMemberAccessStrategy _members = new();

        public override IMemberAccessor GetAccessor(Type type, string name) => new Accessor(_members.GetAccessor(type, name), name);

        public override void Register(Type type, IEnumerable<KeyValuePair<string, IMemberAccessor>> accessors) => _members.Register(type, accessors);
    }

    private sealed class Accessor(IMemberAccessor? member, string name) : IMemberAccessor
    {
        public object Get(object obj, string asked, TemplateContext ctx) => member?.Get(obj, asked, ctx) ?? new Nothing(name);
    }
}
