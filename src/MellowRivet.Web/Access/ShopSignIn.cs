using System.Security.Claims;
using MellowRivet.Core.People;
using MellowRivet.Store;
using Microsoft.AspNetCore.Authorization;
using Microsoft.AspNetCore.Identity;

namespace MellowRivet.Web.Access;

/// <summary>
/// Sign-in by ASP.NET Core Identity. What a person is called and may do comes along as claims, so that no page asks the database for it.
/// </summary>
public static class ShopSignIn
{
    private const string PersonClaim = "rivet:person";
    private const string InitialsClaim = "rivet:initials";

    public static void AddShopSignIn(this IServiceCollection services)
    {
        services.AddIdentity();
        services.ConfigureApplicationCookie(cookie =>
        {
            cookie.Cookie.Name = "rivet";
            cookie.Cookie.HttpOnly = true;
            cookie.Cookie.SameSite = SameSiteMode.Lax;
            cookie.Cookie.SecurePolicy = CookieSecurePolicy.SameAsRequest;
            cookie.LoginPath = "/enter";
            // The page for 403 is shown at the address itself, so that no program takes the way there for an answer.
            cookie.Events.OnRedirectToAccessDenied = denied =>
            {
                denied.Response.StatusCode = StatusCodes.Status403Forbidden;
                return Task.CompletedTask;
            };
            cookie.ExpireTimeSpan = TimeSpan.FromHours(14);
            // Who is signed in goes by the browser's clock and the machine's, whatever day the shop is set to.
            cookie.TimeProvider = TimeProvider.System;
        });
        // A changed role takes hold within a minute.
        services.Configure<SecurityStampValidatorOptions>(stamp =>
        {
            stamp.ValidationInterval = TimeSpan.FromMinutes(1);
            stamp.TimeProvider = TimeProvider.System;
        });
        // Whoever forgets to say who may come has closed the door to strangers.
        services.AddAuthorization(access => access.FallbackPolicy = new AuthorizationPolicyBuilder().RequireAuthenticatedUser().Build());
    }

    /// <summary>A person as a page sees them who is shown it without having entered: for a start that asks for its own pages.</summary>
    internal static ClaimsPrincipal Shown(Person person) => new(new ClaimsIdentity(ClaimsOf(person), "start"));

    private static IEnumerable<Claim> ClaimsOf(Person person) =>
        [new(PersonClaim, $"{person.Id}"), new(InitialsClaim, person.Initials), new(ClaimTypes.GivenName, person.Name),
            .. person.Roles.Select(role => new Claim(ClaimTypes.Role, $"{role}"))];

    public static Guid PersonId(this ClaimsPrincipal user) => Guid.Parse(user.FindFirstValue(PersonClaim)!);

    public static string Initials(this ClaimsPrincipal user) => user.FindFirstValue(InitialsClaim)!;

    public static bool May(this ClaimsPrincipal user, Right right) =>
        user.FindAll(ClaimTypes.Role).Any(claim => Enum.TryParse<Role>(claim.Value, out var role) && Rights.Of(role).Contains(right));

    private static void AddIdentity(this IServiceCollection services)
    {
        services.AddAuthentication(IdentityConstants.ApplicationScheme).AddIdentityCookies();
        services.AddIdentityCore<Account>(identity =>
        {
            identity.Password.RequiredLength = 10;
            identity.Password.RequireDigit = false;
            identity.Password.RequireUppercase = false;
            identity.Password.RequireLowercase = false;
            identity.Password.RequireNonAlphanumeric = false;
            identity.Lockout.MaxFailedAccessAttempts = 5;
            identity.Lockout.DefaultLockoutTimeSpan = TimeSpan.FromMinutes(5);
        }).AddEntityFrameworkStores<RivetDb>().AddSignInManager().AddClaimsPrincipalFactory<PersonClaims>();
    }

    private sealed class PersonClaims(UserManager<Account> users, Microsoft.Extensions.Options.IOptions<IdentityOptions> options,
        RivetDb db)
        : UserClaimsPrincipalFactory<Account>(users, options)
    {
        protected override async Task<ClaimsIdentity> GenerateClaimsAsync(Account user)
        {
            var identity = await base.GenerateClaimsAsync(user);
            identity.AddClaims(ClaimsOf(await db.PersonAsync(user.PersonId, CancellationToken.None)));
            return identity;
        }
    }
}
